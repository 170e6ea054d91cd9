/**
 * What one scattering at a rough surface returns of the light, tabulated over roughness and cosine, so that the kernel
 * can give back what single scattering loses. Source of the use: Turquin 2019, Practical multiple scattering
 * compensation for microfacet models. Integrated with POINTS visible normals an entry; interpolated within 0.5 % at
 * cosines from 0.03 and 2 % below (albedo-tables.test.ts).
 */
import type { Vec3 } from '../math/vec3';
import { fresnel } from './fresnel';
import { lambda, sampleVisibleNormal } from './ggx';

// A lattice of two Fibonacci numbers: in a grid the horizon's cut would fall along one of its rows. Source: Niederreiter
// 1992, Random Number Generation and Quasi-Monte Carlo Methods, chapter 5.
const POINTS = 610;
const LATTICE = 377;
export const SMALLEST_ALPHA = 0.001;

/** The cosine of a column: they stand closer towards grazing light, where most changes. */
export const cosineOf = (column: number, steps: number): number => (column / (steps - 1)) ** 2;

/** Perfect mirror facets: steps x steps values, row = roughness from 0 to 1, column = root of the cosine from 0 to 1. */
export function metalAlbedo(steps: number): Float32Array {
  const out = new Float32Array(steps * steps);
  for (let r = 0; r < steps; r++) {
    const alpha = Math.max((r / (steps - 1)) ** 2, SMALLEST_ALPHA);
    for (let c = 0; c < steps; c++)
      out[r * steps + c] = average(viewer(cosineOf(c, steps)), alpha, (wo, h) => reflected(wo, h, alpha));
  }
  return out;
}

/** Reflection and refraction of clear glass together: [outside, inside] x roughSteps x steps values. */
export function glassAlbedo(ior: number, roughSteps: number, steps: number): Float32Array {
  const out = new Float32Array(2 * roughSteps * steps);
  for (let side = 0; side < 2; side++) {
    const eta = side === 0 ? ior : 1 / ior;
    for (let r = 0; r < roughSteps; r++) {
      const alpha = Math.max((r / (roughSteps - 1)) ** 2, SMALLEST_ALPHA);
      for (let c = 0; c < steps; c++) {
        out[(side * roughSteps + r) * steps + c] = average(viewer(cosineOf(c, steps)), alpha, (wo, h) => {
          const cosine = wo[0] * h[0] + wo[1] * h[1] + wo[2] * h[2];
          if (cosine <= 0) return 0;
          const f = fresnel(cosine, eta);
          return f * reflected(wo, h, alpha) + (1 - f) * refracted(wo, h, alpha, eta);
        });
      }
    }
  }
  return out;
}

const viewer = (cosine: number): Vec3 => {
  const z = Math.max(cosine, 1e-4);
  return [Math.sqrt(1 - z * z), 0, z];
};

function average(wo: Vec3, alpha: number, value: (wo: Vec3, h: Vec3) => number): number {
  let sum = 0;
  // normals to the left and to the right of the viewer's plane return the same
  for (let i = 0; i < POINTS; i++)
    sum += value(wo, sampleVisibleNormal(wo, alpha, (i + 0.5) / POINTS, 0.25 - 0.5 * (((i * LATTICE) / POINTS) % 1)));
  return Math.max(sum / POINTS, 0.02);
}

/** Weight G2/G1 of the reflected direction, zero when it goes into the surface. */
function reflected(wo: Vec3, h: Vec3, alpha: number): number {
  const cosine = wo[0] * h[0] + wo[1] * h[1] + wo[2] * h[2];
  const wi: Vec3 = [2 * cosine * h[0] - wo[0], 2 * cosine * h[1] - wo[1], 2 * cosine * h[2] - wo[2]];
  if (wi[2] <= 0) return 0;
  const lo = lambda(wo, alpha);
  return (1 + lo) / (1 + lo + lambda(wi, alpha));
}

function refracted(wo: Vec3, h: Vec3, alpha: number, eta: number): number {
  const cosine = wo[0] * h[0] + wo[1] * h[1] + wo[2] * h[2];
  const t2 = 1 - (1 - cosine * cosine) / (eta * eta);
  if (t2 <= 0) return 0;
  const k = cosine / eta - Math.sqrt(t2);
  const wi: Vec3 = [k * h[0] - wo[0] / eta, k * h[1] - wo[1] / eta, k * h[2] - wo[2] / eta];
  if (wi[2] >= 0) return 0;
  return 1 / (1 + lambda(wi, alpha));
}
