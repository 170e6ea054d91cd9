/**
 * Colour of a lamp from its kelvin and tint: a black body's chromaticity, moved across the locus of black bodies.
 * Source of the locus: Krystek 1985, An algorithm to calculate correlated colour temperature, Color Research and
 * Application 10(1); 1,000 to 15,000 K, within 8e-5 of Planck in CIE 1960 uv. Its coefficients are written from memory
 * and held to the published points of CIE 15.
 */
import type { Vec3 } from '../math/vec3';
import { xyzToRec709 } from './spaces';

export const MIN_KELVIN = 1000;
export const MAX_KELVIN = 15_000;

/** CIE 1960 uv of a black body. */
export function locusPoint(kelvin: number): [u: number, v: number] {
  const t = kelvin;
  return [
    (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t * t) / (1 + 8.42420235e-4 * t + 7.08145163e-7 * t * t),
    (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t * t) / (1 - 2.89741816e-5 * t + 1.61456053e-7 * t * t)
  ];
}

/**
 * CIE 1931 chromaticity. `tint`: hundredths of the CIE 1960 uv diagram off the locus, positive towards green. Throws
 * outside 1,000 to 15,000 K.
 */
export function kelvinToXy(kelvin: number, tint = 0): [x: number, y: number] {
  if (!(kelvin >= MIN_KELVIN && kelvin <= MAX_KELVIN))
    throw new RangeError(`kelvinToXy: expected ${MIN_KELVIN} to ${MAX_KELVIN} K, got ${kelvin}`);
  let [u, v] = locusPoint(kelvin);
  if (tint !== 0) {
    const [a, b] = locusPoint(kelvin * 0.999);
    const [c, d] = locusPoint(kelvin * 1.001);
    const size = Math.hypot(c - a, d - b);
    // across the locus, to the side of larger v, which is green
    u += ((d - b) / size) * 0.01 * tint;
    v += ((a - c) / size) * 0.01 * tint;
  }
  const k = 2 * u - 8 * v + 4;
  return [(3 * u) / k, (2 * v) / k];
}

// Of white light, D65.
const WHITE_KELVIN = 6504;
/** Farthest that a light can be turned, mired: to 4,300 K short of blue's end, and to 2,700 K. */
export const MAX_COOL = -80;
export const MAX_WARM = 220;

/**
 * What a filter of so many mired (a shift of 1e6 over kelvin: the same number looks like the same change whatever the
 * light) does to a light, by channel; its luminance stays. Positive is warmer.
 */
export function warmthGain(mired: number): Vec3 {
  if (mired === 0) return [1, 1, 1];
  const from = kelvinToRec709(WHITE_KELVIN);
  const to = kelvinToRec709(1e6 / (1e6 / WHITE_KELVIN + mired));
  return [to[0] / from[0], to[1] / from[1], to[2] / from[2]];
}

/**
 * Linear Rec. 709 of luminance 1; channels outside its gamut are cut off, which only deep orange below 1,900 K meets.
 */
export function kelvinToRec709(kelvin: number, tint = 0): Vec3 {
  const [x, y] = kelvinToXy(kelvin, tint);
  const rgb = xyzToRec709([x / y, 1, (1 - x - y) / y]).map((c) => Math.max(0, c)) as unknown as Vec3;
  const light = 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
  return [rgb[0] / light, rgb[1] / light, rgb[2] / light];
}
