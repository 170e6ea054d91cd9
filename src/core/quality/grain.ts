/**
 * Grain: root mean square over pixels of the standard error of displayed lightness, in L* (0 to 100), at the brief's
 * exposure and the default tone curve. The two halves A and B of a pixel have independent scrambles, so (A - B)^2 / 4
 * estimates the squared error of their mean; the expectation of a single pixel is noisy, that of a tile is not.
 */
import { lightness } from '../color/lightness';
import { luminance } from '../color/spaces';
import { mixTone, toneCurve } from '../color/tone';
import { CHANNELS, EVEN, halves, ODD } from '../film/film';
import { lookUp, tableOf } from '../math/curve-table';

const shown: number[] = [0, 0, 0];
/**
 * Displayed lightness L* of a radiance given in units of displayed white, by the curve channel by channel: where a colour
 * keeps its hue it differs little, and films stay what they were.
 */
export function displayedLightness(r: number, g: number, b: number): number {
  mixTone(shown, r, g, b);
  for (let c = 0; c < 3; c++) shown[c] = toneCurve(shown[c]!);
  return lightness(luminance(shown));
}

const mixed = new Float32Array(3);
const tones = tableOf(toneCurve);
const lightnesses = tableOf((y) => lightness(Math.min(y, 1)));

/** The same by table, a tenth of the work: after each pass it is asked for at every pixel. */
function quickLightness(r: number, g: number, b: number): number {
  mixTone(mixed, r, g, b);
  mixed[0] = lookUp(tones, mixed[0]!);
  mixed[1] = lookUp(tones, mixed[1]!);
  mixed[2] = lookUp(tones, mixed[2]!);
  return lookUp(lightnesses, luminance(mixed));
}

/**
 * Sum over the tile's pixels of the squared error, for any number of tiles to be added; zero samples in a half give
 * NaN.
 */
export function squaredGrain(tile: Float32Array, pixels: number, samples: number, white: number): number {
  const [even, odd] = halves(samples);
  const ka = 1 / (even * white);
  const kb = 1 / (odd * white);
  let sum = 0;
  for (let i = 0; i < pixels; i++) {
    const p = i * CHANNELS;
    const difference =
      quickLightness(tile[p + EVEN]! * ka, tile[p + EVEN + 1]! * ka, tile[p + EVEN + 2]! * ka) -
      quickLightness(tile[p + ODD]! * kb, tile[p + ODD + 1]! * kb, tile[p + ODD + 2]! * kb);
    sum += (difference * difference) / 4;
  }
  return sum;
}
