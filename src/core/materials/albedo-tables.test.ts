import { describe, expect, it } from 'vitest';
import type { Vec3 } from '../math/vec3';
import { metalAlbedo } from './albedo-tables';
import { lambda } from './ggx';

/**
 * What mirror facets return, integrated over the reflected direction and not over normals: D G2 / (4 cos) by Walter et al.
 * 2007, on a grid that is fine about the mirror direction.
 */
function returned(cosine: number, alpha: number): number {
  const wo: Vec3 = [Math.sqrt(1 - cosine * cosine), 0, cosine];
  const lo = lambda(wo, alpha);
  const [rings, turns] = [1200, 400];
  let sum = 0;
  // normals by their slope: tan = alpha s / (1 - s), which spreads the lobe over the grid
  for (let i = 0; i < rings; i++) {
    const s = (i + 0.5) / rings;
    const tan = (alpha * s) / (1 - s);
    const dTan = alpha / (1 - s) ** 2 / rings;
    const hz = 1 / Math.hypot(1, tan);
    const d = 1 / (Math.PI * alpha * alpha * hz ** 4 * (1 + (tan / alpha) ** 2) ** 2);
    for (let j = 0; j < turns; j++) {
      const turn = (Math.PI * (j + 0.5)) / turns;
      const oh = wo[0] * tan * hz * Math.cos(turn) + wo[2] * hz;
      const iz = 2 * oh * hz - wo[2];
      if (oh <= 0 || iz <= 0) continue;
      const li = lambda([Math.sqrt(Math.max(0, 1 - iz * iz)), 0, iz], alpha);
      // dwi = 4 oh dh, and dh = sin cos^2 dTan dTurn of the slope
      sum += ((d * oh) / (wo[2] * (1 + lo + li))) * tan * hz ** 3 * dTan;
    }
  }
  return (sum * 2 * Math.PI) / turns;
}

describe('the table of what rough metal returns', () => {
  const STEPS = 32;
  const table = metalAlbedo(STEPS);
  const look = (roughness: number, cosine: number) => {
    const [r, c] = [roughness * (STEPS - 1), Math.sqrt(cosine) * (STEPS - 1)];
    const [r0, c0] = [Math.min(Math.floor(r), STEPS - 2), Math.min(Math.floor(c), STEPS - 2)];
    const row = (i: number) => table[i * STEPS + c0]! * (1 - (c - c0)) + table[i * STEPS + c0 + 1]! * (c - c0);
    return row(r0) * (1 - (r - r0)) + row(r0 + 1) * (r - r0);
  };
  it.each([0.2, 0.3, 0.35, 0.355, 0.36, 0.38, 0.4, 0.42, 0.45, 0.6, 0.8, 1])(
    'holds the integral within 0.3 % at roughness %f, and 0.5 % at grazing angles',
    (roughness) => {
      for (const cosine of [0.035, 0.05, 0.1, 0.2, 0.5, 0.8, 1])
        expect(
          Math.abs(look(roughness, cosine) / returned(cosine, roughness ** 2) - 1),
          `cosine ${cosine}`
        ).toBeLessThan(cosine < 0.1 ? 0.005 : 0.003);
    }
  );
});
