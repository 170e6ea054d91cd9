/**
 * The backdrop's share of a pixel (what came straight from the surroundings, channels 6 to 9) has grain of its own
 * behind glass, where one sample goes through and the next is mirrored. When the picture is denoised, it is evened out
 * too: averaged over near pixels that show the same kind of thing by their features (a bilateral filter joint with
 * them, Petschnigg et al. 2004), within the tile. Silhouettes keep their edge: what lies on either side of them has
 * other features.
 */
import { luminanceAt } from '../color/spaces';
import { BACKDROP, BACKDROP_SHARE, CHANNELS, EVEN, FEATURE_CHANNELS, FEATURES, ODD } from './film';

const REACH = 4;
/** Of features that count as alike, and of places, px. */
const ALIKE = 0.06;
const NEAR = 2.6;

/** Whether nothing but backdrop is seen at a pixel: on a ground that takes shadow alone. */
export function isAlone(tile: Float32Array, p: number): boolean {
  const whole = luminanceAt(tile, p + EVEN) + luminanceAt(tile, p + ODD);
  return whole > 0 && Math.abs(luminanceAt(tile, p + BACKDROP) - whole) <= 1e-4 * whole;
}

/**
 * Writes the evened channels of `tile` into `out`; both of width x height px. Pixels without backdrop, or with nothing
 * else, stay as they are.
 */
export function evenBackdrop(
  tile: Float32Array,
  out: Float32Array,
  width: number,
  height: number,
  samples: number
): void {
  const k = 1 / samples;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = (y * width + x) * CHANNELS;
      const share = tile[p + BACKDROP_SHARE]! * k;
      if (share <= 0 || share >= 1 - 1e-6 || isAlone(tile, p)) continue;
      let weights = 0;
      let shares = 0;
      let [r, g, b] = [0, 0, 0];
      for (let v = Math.max(0, y - REACH); v <= Math.min(height - 1, y + REACH); v++) {
        for (let u = Math.max(0, x - REACH); u <= Math.min(width - 1, x + REACH); u++) {
          const q = (v * width + u) * CHANNELS;
          let apart = 0;
          for (let c = FEATURES; c < FEATURES + FEATURE_CHANNELS; c++)
            apart += ((tile[p + c]! - tile[q + c]!) * k) ** 2;
          const w = Math.exp(-apart / (2 * ALIKE * ALIKE) - ((u - x) ** 2 + (v - y) ** 2) / (2 * NEAR * NEAR));
          weights += w;
          shares += w * tile[q + BACKDROP_SHARE]!;
          r += w * tile[q + BACKDROP]!;
          g += w * tile[q + BACKDROP + 1]!;
          b += w * tile[q + BACKDROP + 2]!;
        }
      }
      out[p + BACKDROP] = r / weights;
      out[p + BACKDROP + 1] = g / weights;
      out[p + BACKDROP + 2] = b / weights;
      out[p + BACKDROP_SHARE] = shares / weights;
    }
  }
}
