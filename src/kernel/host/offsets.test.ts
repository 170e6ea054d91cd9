import { describe, expect, it } from 'vitest';
import {
  even,
  glowing,
  makeScene,
  matte,
  type Piece,
  quad,
  renderScene,
  viewFrom
} from '../../../tests/support/scenes';
import type { Vec3 } from '../../core/math/vec3';

// a site 500 m across and a part of 5 mm on it, far from the origin: both must be right in one picture
const SITE = quad([-250, 0, 250], [250, 0, 250], [250, 0, -250], [-250, 0, -250], matte(1));

/** A box with its faces outwards, or inwards. */
function box([x, y, z]: Vec3, size: number, material: object, inward = false): Piece[] {
  const at = (i: number): Vec3 => [x + (i & 1 ? size : 0), y + (i & 2 ? size : 0), z + (i & 4 ? size : 0)];
  return (
    [
      [0, 1, 5, 4],
      [2, 6, 7, 3],
      [0, 4, 6, 2],
      [1, 3, 7, 5],
      [0, 2, 3, 1],
      [4, 5, 7, 6]
    ] as const
  ).map(([a, b, c, d]) =>
    inward ? quad(at(d), at(c), at(b), at(a), material) : quad(at(a), at(b), at(c), at(d), material)
  );
}
const above = (x: number, y: number, z: number, size: number) =>
  viewFrom([x, y + 0.05, z], [x, y, z], { projection: 'parallel', height_m: size });

describe('ray offsets', () => {
  for (const place of [0, 3, 60, 210]) {
    it(`${place} m from the origin: open ground under an even sky is not shaded by itself`, () => {
      const { pixels, mean } = renderScene(makeScene([SITE]), above(place, 0, place * 0.7, 0.02), {
        samples: 256,
        bounces: 1,
        light: even(1)
      });
      expect(Math.abs(mean[0] - 1)).toBeLessThan(1e-3);
      for (const p of pixels) expect(p[0]).toBeGreaterThan(0.97);
    });
    it(`${place} m from the origin: a part of 5 mm is lit on top and shades the ground beside it`, () => {
      const scene = makeScene([SITE, ...box([place - 0.0025, 0, place * 0.7 - 0.0025], 0.005, matte(1))]);
      const top = renderScene(scene, above(place, 0.005, place * 0.7, 0.003), {
        samples: 256,
        bounces: 1,
        light: even(1)
      });
      expect(Math.abs(top.mean[0] - 1)).toBeLessThan(0.01);
      // 1 mm beside the wall of a cube 5 mm high: a good part of the sky is hidden
      const beside = renderScene(scene, above(place + 0.0035, 0, place * 0.7, 0.0006), {
        samples: 512,
        bounces: 1,
        light: even(1)
      });
      expect(beside.mean[0]).toBeGreaterThan(0.5);
      expect(beside.mean[0]).toBeLessThan(0.8);
    });
    it(`${place} m from the origin: a closed box of 5 mm keeps its light in and the sky out`, () => {
      const inside: Vec3 = [place - 0.0025, 0.001, place * 0.7 - 0.0025];
      const middle: Vec3 = [inside[0] + 0.0025, inside[1] + 0.0025, inside[2] + 0.0025];
      const view = viewFrom(middle, [middle[0], middle[1] + 0.0004, middle[2] + 0.002], { focal_length_mm: 14 });
      expect(
        renderScene(makeScene([SITE, ...box(inside, 0.005, matte(0.9), true)]), view, {
          samples: 256,
          bounces: 20,
          light: even(1e4)
        }).mean[0]
      ).toBe(0);
      const lit = renderScene(
        makeScene([SITE, ...box(inside, 0.005, { ...glowing(1, 0.5), twoSided: true }, true)]),
        view,
        { samples: 256, bounces: 60, light: even(0) }
      );
      expect(Math.abs(lit.mean[0] - 2)).toBeLessThan(0.005);
    });
  }
});
