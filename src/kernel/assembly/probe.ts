// Doors for the tests: scattering at a surface given by its values instead of by a hit, the random points, and the
// functions.
import * as bsdf from './bsdf';
import { atan2, cosOut, exp, log2, sinCosTurns, sinOut } from './math';
import { random2D, random2Dx4, four0, four1, startSample, u0, u1 } from './random';
import * as solids from './solid';
import * as surface from './surface';

/** Sets up a surface with normal +Z from the values that surface.probe names, seen from (x, y, z). */
export function probeSurface(values: usize, glassAlbedo: usize, x: f32, y: f32, z: f32): void {
  surface.probe(values, glassAlbedo);
  bsdf.prepareBsdf(x, y, z, -1);
}

/** Evaluates towards a direction: writes f cos rgb and pdf. */
export function probeEvaluate(x: f32, y: f32, z: f32, out: usize): void {
  bsdf.evaluate(x, y, z);
  store<f32>(out, bsdf.fR);
  store<f32>(out, bsdf.fG, 4);
  store<f32>(out, bsdf.fB, 8);
  store<f32>(out, bsdf.pdf, 12);
}

/** Samples: writes direction xyz, weight rgb, pdf (0 for a perfect one); returns 0 when nothing was scattered. */
export function probeSample(choice: f32, u: f32, v: f32, out: usize): i32 {
  if (!bsdf.sample(choice, u, v)) return 0;
  store<f32>(out, bsdf.wx);
  store<f32>(out, bsdf.wy, 4);
  store<f32>(out, bsdf.wz, 8);
  store<f32>(out, bsdf.weightR, 12);
  store<f32>(out, bsdf.weightG, 16);
  store<f32>(out, bsdf.weightB, 20);
  store<f32>(out, bsdf.delta ? 0 : bsdf.pdf, 24);
  return 1;
}

/** Writes `count` points of a dimension pair of a pixel. */
export function probePoints(x: u32, y: u32, pair: u32, count: i32, seed: u32, out: usize): void {
  for (let i = 0; i < count; i++, out += 8) {
    startSample(x, y, i * 2, seed);
    random2D(pair);
    store<f32>(out, u0);
    store<f32>(out, u1, 4);
  }
}

/** Writes the points of four dimension pairs of a pixel's sample: the four first numbers, then the second. */
export function probeFour(x: u32, y: u32, first: u32, sample: u32, seed: u32, out: usize): void {
  startSample(x, y, sample, seed);
  random2Dx4(first);
  v128.store(out, four0);
  v128.store(out, four1, 16);
}

/**
 * Writes sine and cosine of x turns, the angle of (x, y), and of x, when it is positive, the logarithm to base two;
 * last e^x.
 */
export function probeMath(x: f32, y: f32, out: usize): void {
  sinCosTurns(x);
  store<f32>(out, sinOut);
  store<f32>(out, cosOut, 4);
  store<f32>(out, atan2(y, x), 8);
  store<f32>(out, x > 0 ? log2(x) : 0, 12);
  store<f32>(out, exp(x), 16);
}

/** A solid texture at a place in units of its size: writes its three weights, height and change of roughness. */
export function probeSolid(
  solid: usize,
  x: f32,
  y: f32,
  z: f32,
  width: f32,
  nx: f32,
  ny: f32,
  nz: f32,
  out: usize
): void {
  solids.evaluateSolid(solid, x, y, z, width, nx, ny, nz, 0);
  store<f32>(out, solids.weight0);
  store<f32>(out, solids.weight1, 4);
  store<f32>(out, solids.weight2, 8);
  store<f32>(out, solids.height, 12);
  store<f32>(out, solids.rough, 16);
}
