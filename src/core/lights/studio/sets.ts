/**
 * Sets of studio lamps to begin from, in sizes of the model, so that the same light falls on a ring and on a chair.
 * Arrangements: common practice, no source.
 */
import { lumenFor, type LampForm, type LampRole, type StudioLamp } from './lamp';

interface SetLamp {
  name: string;
  role: LampRole;
  form: LampForm;
  azimuth: number;
  elevation: number;
  /** In sizes of the model. */
  distance: number;
  width: number;
  height: number;
  turn?: number;
  kelvin: number;
  /** cd/m2 */
  luminance: number;
}

export interface StudioSet {
  name: string;
  /** What it does, for those who choose. */
  says: string;
  lamps: readonly SetLamp[];
  /** What comes through the open ceiling, cd/m2. */
  ceiling: number;
  backdrop: Backdrop;
  /** Share of light that its paper gives back. */
  paper: number;
}

export const BACKDROPS = ['bowl', 'sweep', 'none'] as const;
export type Backdrop = (typeof BACKDROPS)[number];

export const STUDIO_SETS = {
  three: {
    name: 'three softboxes',
    says: 'A large warm softbox from the left, a smaller cool one against it, a strip behind for the edge.',
    ceiling: 1300,
    backdrop: 'bowl',
    paper: 0.69,
    lamps: [
      {
        name: 'Key',
        role: 'key',
        form: 'softbox',
        azimuth: -48,
        elevation: 38,
        distance: 2.6,
        width: 1.7,
        height: 2.3,
        kelvin: 4600,
        luminance: 7900
      },
      {
        name: 'Fill',
        role: 'fill',
        form: 'softbox',
        azimuth: 62,
        elevation: 16,
        distance: 3,
        width: 0.9,
        height: 2,
        kelvin: 8200,
        luminance: 3000
      },
      {
        name: 'Edge',
        role: 'rim',
        form: 'strip',
        azimuth: 165,
        elevation: 46,
        distance: 3,
        width: 2.2,
        height: 0.45,
        kelvin: 4600,
        luminance: 5300
      }
    ]
  },
  window: {
    name: 'north window',
    says: 'One tall window from the side and a weak reflector: soft daylight with a bar across the highlights.',
    ceiling: 260,
    backdrop: 'sweep',
    paper: 0.55,
    lamps: [
      {
        name: 'Window',
        role: 'key',
        form: 'window',
        azimuth: -72,
        elevation: 24,
        distance: 2.4,
        width: 1.8,
        height: 2.6,
        kelvin: 6700,
        luminance: 6500
      },
      {
        name: 'Reflector',
        role: 'fill',
        form: 'softbox',
        azimuth: 80,
        elevation: 8,
        distance: 2.2,
        width: 1.6,
        height: 2,
        kelvin: 5600,
        luminance: 520
      }
    ]
  },
  edges: {
    name: 'bright edges',
    says: 'Two long strips behind draw the outline out of the dark; almost nothing comes from the front.',
    ceiling: 60,
    backdrop: 'bowl',
    paper: 0.05,
    lamps: [
      {
        name: 'Left edge',
        role: 'rim',
        form: 'strip',
        azimuth: -128,
        elevation: 18,
        distance: 2.4,
        width: 0.45,
        height: 3,
        kelvin: 5600,
        luminance: 9000
      },
      {
        name: 'Right edge',
        role: 'key',
        form: 'strip',
        azimuth: 122,
        elevation: 18,
        distance: 2.4,
        width: 0.45,
        height: 3,
        kelvin: 5600,
        luminance: 12000
      },
      {
        name: 'Front',
        role: 'fill',
        form: 'softbox',
        azimuth: 10,
        elevation: 40,
        distance: 3.6,
        width: 1,
        height: 1,
        kelvin: 5200,
        luminance: 420
      }
    ]
  },
  ring: {
    name: 'ring from the front',
    says: 'A ring round the camera and a lamp on the backdrop: even, without a shadow side, with a round highlight.',
    ceiling: 500,
    backdrop: 'bowl',
    paper: 0.72,
    lamps: [
      {
        name: 'Ring',
        role: 'key',
        form: 'ring',
        azimuth: 0,
        elevation: 16,
        distance: 3,
        width: 2.2,
        height: 2.2,
        kelvin: 5500,
        luminance: 8200
      },
      {
        name: 'Behind',
        role: 'rim',
        form: 'softbox',
        azimuth: 180,
        elevation: 62,
        distance: 3,
        width: 2,
        height: 1,
        kelvin: 5500,
        luminance: 3000
      }
    ]
  },
  overhead: {
    name: 'one from above',
    says: 'A broad softbox overhead and two cards low at the sides: flat tops bright, shadows short and close.',
    ceiling: 300,
    backdrop: 'sweep',
    paper: 0.6,
    lamps: [
      {
        name: 'Overhead',
        role: 'key',
        form: 'softbox',
        azimuth: 0,
        elevation: 82,
        distance: 2.2,
        width: 2.4,
        height: 2,
        kelvin: 5400,
        luminance: 7000
      },
      {
        name: 'Left card',
        role: 'fill',
        form: 'softbox',
        azimuth: -85,
        elevation: 6,
        distance: 2,
        width: 1,
        height: 1.4,
        kelvin: 5400,
        luminance: 900
      },
      {
        name: 'Right card',
        role: 'fill',
        form: 'softbox',
        azimuth: 85,
        elevation: 6,
        distance: 2,
        width: 1,
        height: 1.4,
        kelvin: 5400,
        luminance: 900
      }
    ]
  },
  dusk: {
    name: 'warm against cool',
    says: 'A low amber softbox on one side, a blue one on the other: form told by colour rather than by shade.',
    ceiling: 160,
    backdrop: 'bowl',
    paper: 0.4,
    lamps: [
      {
        name: 'Warm',
        role: 'key',
        form: 'softbox',
        azimuth: -60,
        elevation: 14,
        distance: 2.6,
        width: 1.4,
        height: 2.2,
        kelvin: 3200,
        luminance: 6500
      },
      {
        name: 'Cool',
        role: 'fill',
        form: 'softbox',
        azimuth: 64,
        elevation: 30,
        distance: 2.8,
        width: 1.2,
        height: 2.2,
        kelvin: 10500,
        luminance: 3600
      },
      {
        name: 'Edge',
        role: 'rim',
        form: 'strip',
        azimuth: 175,
        elevation: 40,
        distance: 3,
        width: 1.8,
        height: 0.35,
        kelvin: 5000,
        luminance: 5200
      }
    ]
  }
} as const satisfies Record<string, StudioSet>;

export type StudioSetKey = keyof typeof STUDIO_SETS;
export const STUDIO_SET_KEYS = Object.keys(STUDIO_SETS) as StudioSetKey[];

/** The lamps of a set for a model of this size, m. */
export function lampsOfSet(key: StudioSetKey, size_m: number): StudioLamp[] {
  const lamps: readonly SetLamp[] = STUDIO_SETS[key].lamps;
  return lamps.map(({ name, role, form, azimuth, elevation, distance, width, height, turn = 0, kelvin, luminance }) => {
    const shape = { form, width_m: width * size_m, height_m: height * size_m };
    return {
      name,
      role,
      ...shape,
      on: true,
      azimuth_deg: azimuth,
      elevation_deg: elevation,
      distance_m: distance * size_m,
      turn_deg: turn,
      kelvin,
      tint: 0,
      lumen: lumenFor(luminance, shape)
    };
  });
}
