// Doors for the tests: scattering at a surface given by its values instead of by a hit, and the random points.
import * as bsdf from './bsdf';
import { draw, startSample, u0, u1 } from './random';
import * as solids from './solid';
import * as surface from './surface';

/** Sets up a surface with normal +Z from the values that surface.probe names, seen from (x, y, z). */
export function probeSurface(values: usize, glassAlbedo: usize, x: f32, y: f32, z: f32): void {
  surface.probe(values, glassAlbedo);
  bsdf.beginScattering(x, y, z, -1);
}

/** Evaluates towards a direction: writes f cos rgb and pdf. */
export function probeEvaluate(x: f32, y: f32, z: f32, out: usize): void {
  bsdf.evaluate(x, y, z);
  store<f32>(out, bsdf.fR); store<f32>(out, bsdf.fG, 4); store<f32>(out, bsdf.fB, 8); store<f32>(out, bsdf.pdf, 12);
}

/** Samples: writes direction xyz, weight rgb, pdf (0 for a perfect one); returns 0 when nothing was scattered. */
export function probeSample(choice: f32, u: f32, v: f32, out: usize): i32 {
  if (!bsdf.sample(choice, u, v)) return 0;
  store<f32>(out, bsdf.wx); store<f32>(out, bsdf.wy, 4); store<f32>(out, bsdf.wz, 8);
  store<f32>(out, bsdf.weightR, 12); store<f32>(out, bsdf.weightG, 16); store<f32>(out, bsdf.weightB, 20);
  store<f32>(out, bsdf.delta ? 0 : bsdf.pdf, 24);
  return 1;
}

/** Writes `count` points of a dimension pair of a pixel. */
export function probePoints(x: u32, y: u32, pair: u32, count: i32, seed: u32, out: usize): void {
  for (let i = 0; i < count; i++, out += 8) {
    startSample(x, y, i * 2, seed);
    draw(pair);
    store<f32>(out, u0);
    store<f32>(out, u1, 4);
  }
}

/** A solid texture at a place in units of its size: writes its three weights, height and change of roughness. */
export function probeSolid(solid: usize, x: f32, y: f32, z: f32, width: f32, nx: f32, ny: f32, nz: f32, out: usize): void {
  solids.evaluateSolid(solid, x, y, z, width, nx, ny, nz, 0);
  store<f32>(out, solids.weight0); store<f32>(out, solids.weight1, 4); store<f32>(out, solids.weight2, 8);
  store<f32>(out, solids.height, 12); store<f32>(out, solids.rough, 16);
}
