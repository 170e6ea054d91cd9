/** The picture of a material of the library, all in the same light and seen the same way, so that they can be compared. */
import { BRIEF_DEFAULTS, type Brief, type Swatch, SURROUNDINGS_DEFAULTS } from '../../core/brief/brief';
import { MATERIAL_DEFAULTS, type Scene } from '../../core/scene/scene';
import { projectTextures } from '../../core/scene/project-texture';
import { swatchPiece } from '../../core/scene/swatch-piece';
import type { FileMaterial } from '../../formats/gltf/file-material';
import { smallPicture } from './small-picture';

const WIDTH = 168;
const HEIGHT = 126;
const SAMPLES = 32;
// a meter would make the same grey of black and of white
const EV100 = 11.2;
// of the lamp above, which is to look white
const WHITE = { kelvin: 5800, tint: 0 };

const NAME = 'swatch';

// Of a picture that nothing is known of: as wide as the object is long.
const USUAL_REPEATS = 10;

/**
 * A PNG. `file`: the material of a model that the rule changes, or leaves as it is. Throws a RangeError when there is no
 * such material, or a picture on it is not there.
 */
export async function swatchOf(
  rule: Swatch,
  module: WebAssembly.Module,
  file: FileMaterial | null = null
): Promise<Uint8Array> {
  const brief: Brief = {
    ...BRIEF_DEFAULTS,
    viewpoint: {
      position_m: [-0.19, 0.17, 0.34],
      target_m: [-0.004, 0.045, 0],
      up: [0, 1, 0],
      projection: 'perspective',
      upright: false,
      focal_length_mm: 62,
      sensor_height_mm: 24,
      f_number: null,
      focus_m: null,
      height_m: null
    },
    // one lamp from above leaves dark places for metals to mirror
    surroundings: { ...SURROUNDINGS_DEFAULTS.studio, set: 'overhead' },
    finish: { ...BRIEF_DEFAULTS.finish, white: WHITE },
    exposure: { ev100: EV100 },
    size: { width_px: WIDTH, height_px: HEIGHT },
    materials: [{ ...rule, material: NAME, part: null }],
    quality: { ...BRIEF_DEFAULTS.quality, samples: SAMPLES, grain: null, bounces: 8, firefly: 4 }
  };
  return smallPicture(file ? wearing(file) : swatchPiece({ ...MATERIAL_DEFAULTS, name: NAME }), brief, null, module);
}

/** The object in a material of a model, its pictures as large as they lie there, from six sides. */
function wearing({ material, textures, repeatsPerMetre }: FileMaterial): Scene {
  const piece = { ...swatchPiece({ ...material, name: NAME }), textures };
  const box = { projection: 'box', axis: 'y', turn_deg: 0, tangents: material.normalTexture !== null } as const;
  const projected = projectTextures(piece, () => box);
  const repeats = repeatsPerMetre ?? USUAL_REPEATS;
  // they are metres there, with v up, and repeats with v down in a file
  const uv0 = projected.geometry.uv1.map((v, i) => (i % 2 ? -v : v) * repeats);
  return { ...projected, geometry: { ...projected.geometry, uv0 } };
}
