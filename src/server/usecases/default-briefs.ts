/**
 * The first picture of a new model: its first camera or a three-quarter view that fills the frame, a light that suits
 * its size.
 */
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from '../../core/brief/brief';
import { frameWhole } from '../../core/camera/frame-whole';
import { PLACES } from '../../core/catalogue/places';
import { stepSettings } from '../../core/catalogue/quality';
import { ARMS_LENGTH_M } from '../../core/output/destinations';
import type { ImportReport } from '../../formats/model/import-report';

/** Most that one indirect contribution may weigh, in multiples of white: keeps rare bright paths from sparkling. */
const FIREFLY = 4;
// Width over height of a landscape sheet of the A series (ISO 216).
const A_SERIES = Math.SQRT2;
// Above this it is a building under the sky, below a thing in a studio.
const BUILDING_M = 3;

export function firstBrief(report: ImportReport): Brief {
  const large = Math.max(...report.size_m) >= BUILDING_M;
  const place = PLACES[0]!;
  return {
    ...BRIEF_DEFAULTS,
    viewpoint: report.cameras[0]
      ? { camera: report.cameras[0].name }
      : frameWhole(report.min_m, report.max_m, A_SERIES, 45),
    surroundings:
      large || report.site
        ? {
            ...SURROUNDINGS_DEFAULTS.sky,
            ...(report.site ?? { latitude_deg: place.latitude_deg, longitude_deg: place.longitude_deg })
          }
        : SURROUNDINGS_DEFAULTS.studio,
    exposure: { metered: true },
    size: { paper: 'A3', orientation: 'landscape', ppi: 200 },
    seen: { destination: null, distance_m: ARMS_LENGTH_M, file: 'png' },
    quality: { ...BRIEF_DEFAULTS.quality, step: 'glance', ...stepSettings('glance'), firefly: FIREFLY },
    finish: { ...BRIEF_DEFAULTS.finish, denoise: 1 }
  };
}
