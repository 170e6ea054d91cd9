/** The demo scenario: three jobs of the public observatory on Lantern Hill, with their pictures' briefs. */
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS, type Surroundings } from '../core/brief/brief';
import { destinationOfSize } from '../core/brief/sentence';
import { type QualityKey, stepSettings } from '../core/catalogue/quality';
import { ARMS_LENGTH_M, seenAt } from '../core/output/destinations';
import type { SizeChoice } from '../core/catalogue/size-choice';
import { hut, perihelionLamp, readingRoom } from './models';
import type { DrawnModel } from '../drawing/write-model';

export interface DemoProject {
  name: string;
  kind: string;
  file: string;
  model: () => DrawnModel;
  pictures: DemoPicture[];
}

export interface DemoPicture {
  name: string;
  brief: Brief;
  /** Rendered when the demo is made, at this share of the size and this many samples; null for no proof. */
  proof: { scale: number; samples: number } | null;
}

export const DEMO_CLIENT = 'Ostrel observatory';
const LANTERN_HILL = { ...SURROUNDINGS_DEFAULTS.sky, latitude_deg: 49.4, longitude_deg: 15.6 };
const sky = (time: string, north_deg: number): Surroundings => ({ ...LANTERN_HILL, time, north_deg });

/** As the meter of the finish proposes them, but for a little less of the hut’s brightness; by camera. */
const FINISHED: Readonly<Record<string, Partial<Brief['finish']>>> = {
  'From the meadow': { exposure_ev: 0.5 },
  'East window': { exposure_ev: -0.2, white: { kelvin: 5200, tint: -0.3 } },
  'Whole lamp': { exposure_ev: 0.4, white: { kelvin: 5750, tint: 0 } }
};

function brief(camera: string, surroundings: Surroundings, size: SizeChoice, step: QualityKey): Brief {
  const destination = destinationOfSize(size);
  const seen = destination
    ? seenAt(destination)
    : { ...BRIEF_DEFAULTS.seen, distance_m: 'ppi' in size ? ARMS_LENGTH_M : null };
  return {
    ...BRIEF_DEFAULTS,
    viewpoint: { camera },
    surroundings,
    exposure: { metered: true },
    size,
    seen,
    quality: { ...BRIEF_DEFAULTS.quality, step, ...stepSettings(step), firefly: 4 },
    finish: { ...BRIEF_DEFAULTS.finish, denoise: 1, ...FINISHED[camera] }
  };
}

/** Keeps its lights apart, so that they can be dimmed after the render. */
const withLayers = (of: Brief): Brief => ({ ...of, quality: { ...of.quality, layers: true } });

export const DEMO_PROJECTS: readonly DemoProject[] = [
  {
    name: 'Lantern Hill hut',
    kind: 'Building',
    file: 'lantern-hill-hut.glb',
    model: hut,
    pictures: [
      {
        name: 'Hut from the meadow',
        brief: brief(
          'From the meadow',
          sky('2026-09-12T16:50:00+02:00', -10),
          { width_px: 3840, height_px: 2160 },
          'study'
        ),
        proof: { scale: 0.25, samples: 32 }
      },
      {
        name: 'Dome and slit',
        brief: brief(
          'Dome and slit',
          sky('2026-09-12T09:30:00+02:00', -10),
          { paper: 'A3', orientation: 'portrait', ppi: 200 },
          'glance'
        ),
        proof: null
      }
    ]
  },
  {
    name: 'Reading room',
    kind: 'Interior',
    file: 'reading-room.glb',
    model: readingRoom,
    pictures: [
      {
        name: 'Reading room, east window',
        brief: withLayers(
          brief(
            'East window',
            sky('2026-10-12T08:50:00+02:00', 22),
            { paper: 'A3', orientation: 'landscape', ppi: 200 },
            'study'
          )
        ),
        proof: { scale: 0.25, samples: 48 }
      },
      {
        name: 'Star globe',
        brief: brief('Star globe', sky('2026-10-12T08:50:00+02:00', 22), { width_px: 1080, height_px: 1080 }, 'glance'),
        proof: null
      }
    ]
  },
  {
    name: 'Perihelion lamp',
    kind: 'Product',
    file: 'perihelion-lamp.glb',
    model: perihelionLamp,
    pictures: [
      {
        name: 'Perihelion lamp, lit',
        brief: brief(
          'Whole lamp',
          { ...SURROUNDINGS_DEFAULTS.studio, rotation_deg: 0, brightness_ev: 0 },
          { paper: 'A2', orientation: 'portrait', ppi: 200 },
          'study'
        ),
        proof: { scale: 0.17, samples: 48 }
      },
      {
        name: 'Ring and globe',
        brief: brief(
          'Ring and globe',
          { ...SURROUNDINGS_DEFAULTS.studio, rotation_deg: 25, brightness_ev: 0 },
          { width_px: 1080, height_px: 1350 },
          'glance'
        ),
        proof: null
      }
    ]
  }
];
