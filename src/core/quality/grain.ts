/**
 * Grain: root mean square over pixels of the standard error of displayed lightness, in L* (0 to 100), at the brief's exposure
 * and the default tone curve. The two halves A and B of a pixel have independent scrambles, so (A - B)^2 / 4 estimates the
 * squared error of their mean; the expectation of a single pixel is noisy, that of a tile is not.
 */
import { lightness } from '../color/lightness';
import { toneColor } from '../color/tone';
import { CHANNELS, halves } from '../film/film';

/** Sum over the tile's pixels of the squared error, for any number of tiles to be added; zero samples in a half give NaN. */
export function squaredGrain(tile: Float32Array, pixels: number, samples: number, white: number): number {
  const [even, odd] = halves(samples);
  const a: number[] = [0, 0, 0];
  let sum = 0;
  for (let i = 0; i < pixels; i++) {
    const p = i * CHANNELS;
    const ka = 1 / (even * white);
    const kb = 1 / (odd * white);
    toneColor(a, tile[p]! * ka, tile[p + 1]! * ka, tile[p + 2]! * ka);
    const la = lightness(0.2126 * a[0]! + 0.7152 * a[1]! + 0.0722 * a[2]!);
    toneColor(a, tile[p + 3]! * kb, tile[p + 4]! * kb, tile[p + 5]! * kb);
    const lb = lightness(0.2126 * a[0]! + 0.7152 * a[1]! + 0.0722 * a[2]!);
    sum += ((la - lb) * (la - lb)) / 4;
  }
  return sum;
}
