/**
 * The little scene under some surroundings, always the same and seen the same way, so that surroundings can be
 * compared.
 */
import { BRIEF_DEFAULTS, type Brief, GROUND_DEFAULTS, type Surroundings } from '../../core/brief/brief';
import { ballAndCard } from '../../core/scene/ball-and-card';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { smallPicture } from './small-picture';

const WIDTH = 216;
const HEIGHT = 122;
const SAMPLES = 32;

// A meter makes grey of what is mostly ground; a small picture is read more easily a little lighter.
const LIGHTER_EV = 0.7;

/** A PNG. `captured`: the image of captured surroundings. */
export async function previewOf(
  surroundings: Surroundings,
  captured: FloatImage | null,
  module: WebAssembly.Module
): Promise<Uint8Array> {
  const brief: Brief = {
    ...BRIEF_DEFAULTS,
    viewpoint: {
      position_m: [0.03, 0.19, 0.66],
      target_m: [0.025, 0.075, 0],
      up: [0, 1, 0],
      projection: 'perspective',
      upright: false,
      focal_length_mm: 40,
      sensor_height_mm: 24,
      f_number: null,
      focus_m: null,
      height_m: null
    },
    surroundings: surroundings.kind === 'sky' ? { ...surroundings, north_deg: 200 } : surroundings,
    ground: surroundings.kind === 'studio' ? { kind: 'none' } : { ...GROUND_DEFAULTS, reach: 3 },
    exposure: { metered: true },
    size: { width_px: WIDTH, height_px: HEIGHT },
    finish: { ...BRIEF_DEFAULTS.finish, exposure_ev: LIGHTER_EV },
    quality: { ...BRIEF_DEFAULTS.quality, samples: SAMPLES, bounces: 6, firefly: 4 }
  };
  return smallPicture(ballAndCard(), brief, captured, module);
}
