import { describe, expect, it } from 'vitest';
import { fresnel } from './fresnel';
import { filmReflectance } from './iridescence';
import { sheen, sheenAlbedo, sheenDistribution, sheenLambda } from './sheen';
import type { Vec3 } from '../math/vec3';

describe('sheen', () => {
  const STEPS = 16;
  const table = sheenAlbedo(STEPS);
  it('returns most at grazing angles', () => {
    for (let r = 1; r < STEPS; r++)
      expect(Math.max(...table.slice(r * STEPS, (r + 1) * STEPS))).toBeGreaterThan(table[r * STEPS + STEPS - 1]!);
  });
  it('has a distribution whose projected area is 1 (Walter et al. 2007, equation 4)', () => {
    for (const alpha of [0.1, 0.3, 0.7, 1]) {
      let sum = 0;
      const n = 4000;
      for (let i = 0; i < n; i++) {
        const t = (Math.PI / 2) * ((i + 0.5) / n);
        sum +=
          sheenDistribution([Math.sin(t), 0, Math.cos(t)], alpha) *
          Math.cos(t) *
          Math.sin(t) *
          2 *
          Math.PI *
          (Math.PI / 2 / n);
      }
      expect(sum).toBeCloseTo(1, 3);
    }
  });
  it('is reciprocal, and its shadowing grows towards the horizon', () => {
    const a: Vec3 = [0.6, 0, 0.8];
    const b: Vec3 = [-0.3, 0.5, Math.sqrt(1 - 0.34)];
    expect(sheen(a, b, 0.3) / b[2]).toBeCloseTo(sheen(b, a, 0.3) / a[2], 10);
    for (const alpha of [0.1, 0.5, 1])
      for (let c = 0.05; c < 1; c += 0.05) expect(sheenLambda(c - 0.04, alpha)).toBeGreaterThan(sheenLambda(c, alpha));
  });
});

describe('thin film', () => {
  it('is the bare base when the film vanishes (not at grazing angles, where Schlick sees an interface without a step)', () => {
    for (const c of [1, 0.85, 0.7])
      for (const base of [
        [0.04, 0.04, 0.04],
        [0.9, 0.6, 0.3]
      ] as Vec3[]) {
        const none = filmReflectance(c, 1.4, 0, base);
        // four hundredths: the model sums two orders of interference and takes Schlick's curve for every interface
        for (const [k, f0] of base.entries())
          expect(Math.abs(none[k]! - (f0 + (1 - f0) * (1 - c) ** 5))).toBeLessThan(0.04);
      }
  });

  it(
    'agrees with Airy\u2019s sum integrated over the spectrum (Born and Wolf 7.6; sensitivities CIE ' +
      '1931 by Wyman et al. 2013, JCGT 2(2))',
    () => {
      const lobe = (x: number, at: number, below: number, above: number) =>
        Math.exp(-0.5 * ((x - at) * (x < at ? below : above)) ** 2);
      const bar = (nm: number): Vec3 => [
        0.362 * lobe(nm, 442, 0.0624, 0.0374) +
          1.056 * lobe(nm, 599.8, 0.0264, 0.0323) -
          0.065 * lobe(nm, 501.1, 0.049, 0.0382),
        0.821 * lobe(nm, 568.8, 0.0213, 0.0247) + 0.286 * lobe(nm, 530.9, 0.0613, 0.0322),
        1.217 * lobe(nm, 437, 0.0845, 0.0278) + 0.681 * lobe(nm, 459, 0.0385, 0.0725)
      ];
      const film = 1.4;
      const baseIor = 2.2;
      const f0 = ((baseIor - 1) / (baseIor + 1)) ** 2;
      for (const nm of [120, 250, 380, 550]) {
        for (const cosine of [1, 0.85]) {
          const inside = Math.sqrt(1 - (1 - cosine * cosine) / (film * film));
          const r12 = Math.sqrt(fresnel(cosine, film));
          const r23 = Math.sqrt(fresnel(inside, baseIor / film));
          const xyz = [0, 0, 0];
          const norm = [0, 0, 0];
          for (let l = 380; l <= 780; l += 1) {
            const phase = (2 * Math.PI * 2 * film * nm * inside) / l;
            // both reflections lose half a wave, so they add up when the path is whole
            const reflectance =
              (r12 * r12 + r23 * r23 + 2 * r12 * r23 * Math.cos(phase)) /
              (1 + (r12 * r23) ** 2 + 2 * r12 * r23 * Math.cos(phase));
            bar(l).forEach((s, k) => {
              xyz[k] = xyz[k]! + s * reflectance;
              norm[k] = norm[k]! + s;
            });
          }
          // the mean passes unturned, what varies with the wavelength goes through the matrix of Rec. 709, as in the
          // model
          const t = 1 - r12 * r12;
          const mean = r12 * r12 + (t * t * r23 * r23) / (1 - (r12 * r23) ** 2);
          const [x, y, z] = xyz.map((v, k) => v / norm[k]! - mean) as [number, number, number];
          const expected = [
            mean + 3.2404542 * x - 1.5371385 * y - 0.4985314 * z,
            mean - 0.969266 * x + 1.8760108 * y + 0.041556 * z,
            mean + 0.0556434 * x - 0.2040259 * y + 1.0572252 * z
          ];
          const got = filmReflectance(cosine, film, nm, [f0, f0, f0]);
          for (const [k, e] of expected.entries())
            expect(Math.abs(got[k]! - Math.min(1, Math.max(0, e)))).toBeLessThan(0.035);
        }
      }
    }
  );
});
