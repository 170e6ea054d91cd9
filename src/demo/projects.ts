/** The demo scenario: three jobs of the public observatory on Lantern Hill, with their pictures' briefs. */
import {
  BRIEF_DEFAULTS,
  type Brief,
  CUMULUS_DEFAULTS,
  SURROUNDINGS_DEFAULTS,
  type SkySurroundings,
  type Surroundings
} from '../core/brief/brief';
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
  /** Rendered when the demo is made, at this share of the size and this many samples. */
  proof: { scale: number; samples: number };
  /** The first picture of its project, which is rendered coarsely at once. */
  lead?: true;
}

export const DEMO_CLIENT = 'Ostrel observatory';
const LANTERN_HILL = { ...SURROUNDINGS_DEFAULTS.sky, latitude_deg: 49.4, longitude_deg: 15.6 };
const sky = (time: string, north_deg: number, more: Partial<SkySurroundings> = {}): Surroundings => ({
  ...LANTERN_HILL,
  time,
  north_deg,
  ...more
});
const HEAPED = { ...CUMULUS_DEFAULTS, cover: 0.3, base_m: 1400, seed: 3 };

const { tone, color } = BRIEF_DEFAULTS.finish;

/** By camera: near what the meter of the finish proposes, with the contrast that a print wants. */
const FINISHED: Readonly<Record<string, Partial<Brief['finish']>>> = {
  'From the meadow': { exposure_ev: 0.35, tone: { ...tone, contrast: 0.2, highlights: -0.2, black: 3 } },
  'East window': {
    exposure_ev: -0.2,
    white: { kelvin: 5200, tint: -0.3 },
    tone: { ...tone, contrast: 0.12, highlights: -0.25, shadows: 0.1, black: 2 }
  },
  'Star globe': { exposure_ev: -0.1, white: { kelvin: 5600, tint: 0 } },
  'Whole lamp': {
    exposure_ev: 0.15,
    white: { kelvin: 5750, tint: 0 },
    tone: { ...tone, contrast: 0.3, shadows: -0.2, black: 4 },
    color: { ...color, saturation: 0.1, vibrance: 0.2 }
  },
  'Ring and globe': { exposure_ev: -0.2 }
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

/** Its lamps of these groups at another level than in the model. */
const dimmed = (of: Brief, dim_ev: number, groups: readonly string[]): Brief => ({
  ...of,
  lamps: { ...of.lamps, groups: groups.map((group) => ({ group, on: true, dim_ev, kelvin: null, photometry: null })) }
});

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
        brief: dimmed(
          brief(
            'From the meadow',
            sky('2026-09-12T18:20:00+02:00', -10, { cumulus: HEAPED }),
            { width_px: 3840, height_px: 2160 },
            'study'
          ),
          1,
          ['lamp strip', 'desk lamps', 'Door lamp']
        ),
        proof: { scale: 0.25, samples: 32 },
        lead: true
      },
      {
        name: 'Dome and slit',
        brief: dimmed(
          brief(
            'Dome and slit',
            sky('2026-09-12T19:48:00+02:00', -10),
            { paper: 'A3', orientation: 'portrait', ppi: 200 },
            'study'
          ),
          -1.4,
          ['lamp strip', 'desk lamps']
        ),
        proof: { scale: 0.25, samples: 32 }
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
        proof: { scale: 0.25, samples: 48 },
        lead: true
      },
      {
        name: 'Star globe',
        brief: brief('Star globe', sky('2026-10-12T08:50:00+02:00', 22), { width_px: 1080, height_px: 1080 }, 'study'),
        proof: { scale: 0.5, samples: 32 }
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
        proof: { scale: 0.17, samples: 48 },
        lead: true
      },
      {
        name: 'Ring and globe',
        brief: dimmed(
          brief(
            'Ring and globe',
            { ...SURROUNDINGS_DEFAULTS.studio, set: 'edges', rotation_deg: 0, brightness_ev: -2.5 },
            { width_px: 1080, height_px: 1350 },
            'study'
          ),
          -1,
          ['opal light']
        ),
        proof: { scale: 0.5, samples: 48 }
      }
    ]
  }
];
