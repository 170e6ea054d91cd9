import { describe, expect, it } from 'vitest';
import { dark, glowing, makeScene, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import type { Vec3 } from '../../core/math/vec3';

// Fresnel's equations for light without polarisation, by the angles on both sides (Born and Wolf, Principles of Optics,
// 1.5.2)
function reflectance(angle: number, from: number, to: number): number {
  const sine = (from * Math.sin(angle)) / to;
  if (sine >= 1) return 1;
  const beyond = Math.asin(sine);
  if (angle === 0) return ((from - to) / (from + to)) ** 2;
  return (
    ((Math.sin(angle - beyond) / Math.sin(angle + beyond)) ** 2 +
      (Math.tan(angle - beyond) / Math.tan(angle + beyond)) ** 2) /
    2
  );
}
const N = 1.5;
const degrees = (angle: number) => (angle * Math.PI) / 180;
const BREWSTER = Math.atan(N); // 56.31 degrees
const clear = { transmission: 1, roughness: 0, ior: N };
const inParallel = { projection: 'parallel' as const, height_m: 0.1 };
const size = { width: 8, height: 8 };

describe('a thin pane lets through what Fresnel leaves', () => {
  for (const angle of [0, degrees(30), BREWSTER, degrees(70), degrees(80)])
    it(`at ${((angle * 180) / Math.PI).toFixed(2)} degrees`, () => {
      const pane = makeScene([quad([-9, -9, 0], [9, -9, 0], [9, 9, 0], [-9, 9, 0], clear)]);
      const { shares } = renderScene(pane, viewFrom([Math.sin(angle), 0, Math.cos(angle)], [0, 0, 0], inParallel), {
        ...size,
        samples: 2048
      });
      expect(
        Math.abs(shares.reduce((sum, s) => sum + s, 0) / shares.length - (1 - reflectance(angle, 1, N)))
      ).toBeLessThan(0.002);
    });
  it(
    'of what the formula itself says: 0.04 straight on, half of 0.148 at the Brewster angle, where one ' +
      'polarisation is not mirrored at all',
    () => {
      expect((BREWSTER * 180) / Math.PI).toBeCloseTo(56.31, 2);
      expect(reflectance(0, 1, N)).toBeCloseTo(0.04, 12);
      expect(reflectance(BREWSTER, 1, N)).toBeCloseTo(((N * N - 1) / (N * N + 1)) ** 2 / 2, 12);
    }
  );
});

describe('a wedge of glass lets light out up to the critical angle, 41.81 degrees', () => {
  /**
   * What comes through: in by a face at right angles, out by one that is turned by `angle`, to an even glow behind it;
   * two scatterings, so nothing that was mirrored to and fro.
   */
  function through(angle: number): number {
    const along = (t: number, y: number, out = 0): Vec3 => [
      Math.cos(angle) * t + Math.sin(angle) * out,
      y,
      Math.sin(angle) * t - Math.cos(angle) * out
    ];
    const solid = { ...clear, solid: true, twoSided: false };
    const scene = makeScene([
      quad([-9, -9, 1], [9, -9, 1], [9, 9, 1], [-9, 9, 1], solid),
      quad(along(-1, -1), along(-1, 1), along(1, 1), along(1, -1), solid),
      quad(along(-60, -60, 1), along(60, -60, 1), along(60, 60, 1), along(-60, 60, 1), {
        ...glowing(1),
        twoSided: true
      })
    ]);
    return renderScene(scene, viewFrom([0, 0, 3], [0, 0, 0], inParallel), {
      ...size,
      samples: 2048,
      bounces: 2,
      light: dark
    }).mean[0];
  }
  for (const angle of [0.01, 20, 35, 41, 41.7])
    it(`at ${angle} degrees what Fresnel leaves at both faces`, () =>
      expect(
        Math.abs(through(degrees(angle)) - (1 - reflectance(0, 1, N)) * (1 - reflectance(degrees(angle), N, 1)))
      ).toBeLessThan(0.004));
  for (const angle of [41.9, 43, 44.9])
    it(`at ${angle} degrees nothing`, () => expect(through(degrees(angle))).toBe(0));
});

it(
  'a coloured slab: what both faces mirror to and fro is in it, (1 - R)^2 t / (1 - R^2 t^2) (Fresnel, ' +
    'Beer-Lambert; KHR_materials_volume)',
  () => {
    const material = {
      ...clear,
      solid: true,
      twoSided: false,
      attenuationColor: [Math.exp(-1), Math.exp(-0.5), 1] as Vec3,
      attenuationDistance: 2
    };
    const scene = makeScene([
      quad([-9, -9, 1], [9, -9, 1], [9, 9, 1], [-9, 9, 1], material),
      quad([9, -9, -1], [-9, -9, -1], [-9, 9, -1], [9, 9, -1], material),
      quad([-9, -9, -2], [9, -9, -2], [9, 9, -2], [-9, 9, -2], glowing(1))
    ]);
    const { mean } = renderScene(scene, viewFrom([0, 0, 3], [0, 0, 0], inParallel), {
      ...size,
      samples: 4096,
      light: dark
    });
    const R = 0.04;
    for (const [channel, t] of [Math.exp(-1), Math.exp(-0.5), 1].entries())
      expect(Math.abs(mean[channel]! - ((1 - R) ** 2 * t) / (1 - R * R * t * t))).toBeLessThan(0.002);
    expect(mean[0]).toBeCloseTo(0.339, 2);
  }
);
