/**
 * Cloth's sheen: the inverted Gaussian-like distribution of fibres and its shadowing, and how much of the light it
 * returns. Source: Estevez and Kulla 2017, Production Friendly Microfacet Sheen BRDF, equations 2 and 3 with table 1
 * (its constants from memory; the albedo below 1 and the kernel's agreement are tested). Local frame, z the normal;
 * alpha = roughness squared.
 */
import type { Vec3 } from '../math/vec3';
import { cosineOf } from './albedo-tables';

export const SMALLEST_SHEEN_ALPHA = 0.01;

export function sheenDistribution(h: Vec3, alpha: number): number {
  const sin2 = h[0] * h[0] + h[1] * h[1];
  return sin2 > 0 ? ((2 + 1 / alpha) * sin2 ** (0.5 / alpha)) / (2 * Math.PI) : 0;
}

export function sheenLambda(cosine: number, alpha: number): number {
  const t = (1 - alpha) ** 2;
  const mix = (rough: number, smooth: number) => rough + (smooth - rough) * t;
  const a = mix(21.5473, 25.3245);
  const b = mix(3.82987, 3.32435);
  const c = mix(0.19823, 0.16801);
  const d = mix(-1.9776, -1.27393);
  const e = mix(-4.32054, -4.85967);
  const curve = (x: number) => a / (1 + b * x ** c) + d * x + e;
  return Math.exp(cosine < 0.5 ? curve(cosine) : 2 * curve(0.5) - curve(1 - cosine));
}

/** f times cos of white sheen. */
export function sheen(wo: Vec3, wi: Vec3, alpha: number): number {
  const h: [number, number, number] = [wo[0] + wi[0], wo[1] + wi[1], wo[2] + wi[2]];
  const size = Math.hypot(...h);
  return (
    sheenDistribution([h[0] / size, h[1] / size, h[2] / size], alpha) /
    ((1 + sheenLambda(wo[2], alpha) + sheenLambda(wi[2], alpha)) * 4 * wo[2])
  );
}

/**
 * What white sheen would return of the light: steps x steps values, row = roughness from its smallest to 1, column = root
 * of the cosine from 0 to 1. Smooth sheen is above 1 near grazing light, where its shadowing is no longer that of its fibres;
 * whoever uses it divides by what exceeds 1.
 */
export function sheenAlbedo(steps: number): Float32Array {
  const out = new Float32Array(steps * steps);
  const rings = 64;
  const turns = 48;
  for (let r = 0; r < steps; r++) {
    const smallest = Math.sqrt(SMALLEST_SHEEN_ALPHA);
    const alpha = (smallest + ((1 - smallest) * r) / (steps - 1)) ** 2;
    for (let c = 0; c < steps; c++) {
      const z = Math.max(cosineOf(c, steps), 1e-4);
      const wo: Vec3 = [Math.sqrt(1 - z * z), 0, z];
      let sum = 0;
      for (let i = 0; i < rings; i++) {
        // denser towards grazing light as well: iz = t^2, diz = 2 t dt
        const t = (i + 0.5) / rings;
        const iz = t * t;
        const flat = Math.sqrt(1 - iz * iz);
        for (let j = 0; j < turns; j++) {
          const turn = (Math.PI * (j + 0.5)) / turns;
          sum += 2 * t * sheen(wo, [flat * Math.cos(turn), flat * Math.sin(turn), iz], alpha);
        }
      }
      out[r * steps + c] = (sum * 2 * Math.PI) / (rings * turns);
    }
  }
  return out;
}
