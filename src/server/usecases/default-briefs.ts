/**
 * The first picture of a new model: its first camera, or a view that suits what it is; a light that suits its size. A
 * thing stands in a studio, a building on the ground under the sky, and into a room the sun comes through its opening.
 */
import {
  BRIEF_DEFAULTS,
  type Brief,
  GROUND_DEFAULTS,
  type Surroundings,
  SURROUNDINGS_DEFAULTS
} from '../../core/brief/brief';
import { A_SERIES, type FirstView, isLarge } from '../../core/camera/first-view';
import { frameWhole } from '../../core/camera/frame-whole';
import { PLACES } from '../../core/catalogue/places';
import { stepSettings } from '../../core/catalogue/quality';
import { sunPosition } from '../../core/lights/sun/position';
import { ARMS_LENGTH_M } from '../../core/output/destinations';
import type { ImportReport } from '../../formats/model/import-report';

/** Most that one indirect contribution may weigh, in multiples of white: keeps rare bright paths from sparkling. */
const FIREFLY = 4;

export function firstBrief(report: ImportReport): Brief {
  const { cameras, first_view: view, min_m, max_m } = report;
  return {
    ...BRIEF_DEFAULTS,
    viewpoint: cameras[0] ? { camera: cameras[0].name } : (view?.viewpoint ?? frameWhole(min_m, max_m, A_SERIES, 45)),
    surroundings: firstSurroundings(report),
    // what stands without ground of its own would float
    ground: view?.kind === 'standing' && !view.ground ? GROUND_DEFAULTS : BRIEF_DEFAULTS.ground,
    exposure: { metered: true },
    size: { paper: 'A3', orientation: 'landscape', ppi: 200 },
    seen: { destination: null, distance_m: ARMS_LENGTH_M, file: 'png' },
    quality: { ...BRIEF_DEFAULTS.quality, step: 'glance', ...stepSettings('glance'), firefly: FIREFLY },
    finish: { ...BRIEF_DEFAULTS.finish, denoise: 1 }
  };
}

function firstSurroundings({ min_m, max_m, site, first_view }: ImportReport): Surroundings {
  if (!isLarge(min_m, max_m) && !site) return SURROUNDINGS_DEFAULTS.studio;
  const place = site ?? PLACES[0]!;
  const { latitude_deg, longitude_deg } = place;
  const sky = { ...SURROUNDINGS_DEFAULTS.sky, latitude_deg, longitude_deg };
  if (site) return { ...sky, ...site };
  return first_view?.opening ? { ...sky, north_deg: northBehind(first_view.opening, sky) } : sky;
}

// From where the sun comes in, beside the middle of the opening: straight in it would draw no shadows of the jambs.
const ASIDE_DEG = 35;

/** Where north must lie for the sun to shine through an opening that looks in this direction. */
function northBehind(
  [x, , z]: NonNullable<FirstView['opening']>,
  sky: { time: string; latitude_deg: number; longitude_deg: number }
) {
  const { azimuth } = sunPosition(Date.parse(sky.time), sky.latitude_deg, sky.longitude_deg);
  const outwards = (Math.atan2(x, -z) * 180) / Math.PI;
  const north = (azimuth * 180) / Math.PI - outwards - ASIDE_DEG;
  return Math.round(((((north + 180) % 360) + 360) % 360) - 180);
}
