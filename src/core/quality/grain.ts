/**
 * Grain: root mean square over pixels of the standard error of displayed lightness, in L* (0 to 100), at the brief's exposure
 * and the default tone curve. The two halves A and B of a pixel have independent scrambles, so (A - B)^2 / 4 estimates the
 * squared error of their mean; the expectation of a single pixel is noisy, that of a tile is not.
 */
import { lightness } from '../color/lightness';
import { luminance } from '../color/spaces';
import { toneColor } from '../color/tone';
import { CHANNELS, halves } from '../film/film';

const shown: number[] = [0, 0, 0];
/** Displayed lightness L* of a radiance given in units of displayed white. */
export function displayedLightness(r: number, g: number, b: number): number {
  toneColor(shown, r, g, b);
  return lightness(luminance(shown));
}

/** Sum over the tile's pixels of the squared error, for any number of tiles to be added; zero samples in a half give NaN. */
export function squaredGrain(tile: Float32Array, pixels: number, samples: number, white: number): number {
  const [even, odd] = halves(samples);
  const ka = 1 / (even * white);
  const kb = 1 / (odd * white);
  let sum = 0;
  for (let i = 0; i < pixels; i++) {
    const p = i * CHANNELS;
    const difference = displayedLightness(tile[p]! * ka, tile[p + 1]! * ka, tile[p + 2]! * ka) - displayedLightness(tile[p + 3]! * kb, tile[p + 4]! * kb, tile[p + 5]! * kb);
    sum += (difference * difference) / 4;
  }
  return sum;
}
