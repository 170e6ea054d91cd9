import { expect, it } from 'vitest';
import { dark, makeScene, matte, type Piece, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { add, cross, dot, normalize, scale, subtract, type Vec3 } from '../../core/math/vec3';

/**
 * The closed box of coloured walls of Goral, Torrance, Greenberg and Battaile, Modeling the Interaction of Light
 * Between Diffuse Surfaces, SIGGRAPH 1984, solved here by their method, which shares nothing with the kernel's:
 * radiosities of patches by form factors (Lambert's polygon formula) and Gauss-Seidel. Reflectances: about those
 * measured for the Cornell box, rgb, from memory.
 */
const WHITE: Vec3 = [0.74, 0.74, 0.73];
const RED: Vec3 = [0.63, 0.06, 0.05];
const GREEN: Vec3 = [0.14, 0.45, 0.09];
const LAMP_RADIANCE = 10;
const PATCHES = 10; // along each edge
const LAMP = [3, 7] as const; // of the ceiling, in patches

interface Wall {
  name: string;
  corner: Vec3;
  u: Vec3;
  v: Vec3;
  inward: Vec3;
  reflectance: Vec3;
}
const [X, Y, Z]: readonly [Vec3, Vec3, Vec3] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1]
];
const WALLS: readonly Wall[] = [
  { name: 'floor', corner: [0, 0, 0], u: X, v: Z, inward: Y, reflectance: WHITE },
  { name: 'ceiling', corner: Y, u: X, v: Z, inward: scale(Y, -1), reflectance: WHITE },
  { name: 'back', corner: [0, 0, 0], u: X, v: Y, inward: Z, reflectance: WHITE },
  { name: 'front', corner: Z, u: X, v: Y, inward: scale(Z, -1), reflectance: WHITE },
  { name: 'red wall', corner: [0, 0, 0], u: Z, v: Y, inward: X, reflectance: RED },
  { name: 'green wall', corner: X, u: Z, v: Y, inward: scale(X, -1), reflectance: GREEN }
];
const onWall = ({ corner, u, v }: Wall, s: number, t: number): Vec3 => add(corner, add(scale(u, s), scale(v, t)));
const isLamp = ({ name }: Wall, i: number, j: number) =>
  name === 'ceiling' && i >= LAMP[0] && i < LAMP[1] && j >= LAMP[0] && j < LAMP[1];

/** Share of what a point gives evenly into its half space that meets a polygon before it (Lambert 1760). */
function toPolygon(at: Vec3, normal: Vec3, corners: readonly Vec3[]): number {
  let sum = 0;
  for (let k = 0; k < corners.length; k++) {
    const a = normalize(subtract(corners[k]!, at));
    const b = normalize(subtract(corners[(k + 1) % corners.length]!, at));
    sum += Math.acos(Math.min(1, Math.max(-1, dot(a, b)))) * dot(normal, normalize(cross(a, b)));
  }
  return Math.abs(sum) / (2 * Math.PI);
}

/** Form factors from each patch to each, row by row; over a patch by two Gauss points each way. */
function formFactors(): Float64Array {
  const perWall = PATCHES * PATCHES;
  const all = WALLS.length * perWall;
  const factors = new Float64Array(all * all);
  const gauss = [0.5 - 0.5 / Math.sqrt(3), 0.5 + 0.5 / Math.sqrt(3)];
  const cornersOf = WALLS.flatMap((wall) =>
    Array.from({ length: perWall }, (_, p) =>
      (
        [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 1]
        ] as const
      ).map(([a, b]) => onWall(wall, (Math.floor(p / PATCHES) + a) / PATCHES, ((p % PATCHES) + b) / PATCHES))
    )
  );
  for (const [w, wall] of WALLS.entries())
    for (let p = 0; p < perWall; p++)
      for (const a of gauss)
        for (const b of gauss) {
          const at = onWall(wall, (Math.floor(p / PATCHES) + a) / PATCHES, ((p % PATCHES) + b) / PATCHES);
          for (let q = 0; q < all; q++)
            if (Math.floor(q / perWall) !== w)
              factors[(w * perWall + p) * all + q]! += toPolygon(at, wall.inward, cornersOf[q]!) / 4;
        }
  return factors;
}

/** Radiances of all patches in one channel. */
function solve(factors: Float64Array, channel: 0 | 1 | 2): Float64Array {
  const perWall = PATCHES * PATCHES;
  const all = WALLS.length * perWall;
  const radiances = new Float64Array(all);
  for (let turn = 0; turn < 60; turn++) {
    for (let p = 0; p < all; p++) {
      const wall = WALLS[Math.floor(p / perWall)]!;
      const [i, j] = [Math.floor((p % perWall) / PATCHES), p % PATCHES];
      if (isLamp(wall, i, j)) radiances[p] = LAMP_RADIANCE;
      else {
        let gathered = 0;
        for (let q = 0; q < all; q++) gathered += factors[p * all + q]! * radiances[q]!;
        radiances[p] = wall.reflectance[channel] * gathered;
      }
    }
  }
  return radiances;
}

function box() {
  const part = (
    wall: Wall,
    [s0, s1]: readonly [number, number],
    [t0, t1]: readonly [number, number],
    material: Piece['material']
  ) => {
    const corners = [onWall(wall, s0, t0), onWall(wall, s1, t0), onWall(wall, s1, t1), onWall(wall, s0, t1)] as const;
    const [a, b, c, d] =
      dot(cross(wall.u, wall.v), wall.inward) > 0
        ? corners
        : ([corners[0], corners[3], corners[2], corners[1]] as const);
    return quad(a, b, c, d, material);
  };
  const [from, to] = [LAMP[0] / PATCHES, LAMP[1] / PATCHES];
  return makeScene(
    WALLS.flatMap((wall) => {
      const own = matte(wall.reflectance);
      if (wall.name !== 'ceiling') return [part(wall, [0, 1], [0, 1], own)];
      const lamp = { ...matte(0), emissive: [LAMP_RADIANCE, LAMP_RADIANCE, LAMP_RADIANCE] as Vec3, twoSided: false };
      return [
        part(wall, [from, to], [from, to], lamp),
        part(wall, [0, from], [0, 1], own),
        part(wall, [to, 1], [0, 1], own),
        part(wall, [from, to], [0, from], own),
        part(wall, [from, to], [to, 1], own)
      ];
    })
  );
}

it('a closed box of coloured walls has the light that radiosity gives it (Goral et al. 1984)', () => {
  const factors = formFactors();
  const perWall = PATCHES * PATCHES;
  const all = WALLS.length * perWall;
  // what leaves a patch arrives somewhere
  for (let p = 0; p < all; p++)
    expect(Math.abs(factors.subarray(p * all, (p + 1) * all).reduce((a, b) => a + b) - 1)).toBeLessThan(1e-6);
  const solved = ([0, 1, 2] as const).map((channel) => solve(factors, channel));
  const scene = box();
  let judged = 0;
  for (const [w, wall] of WALLS.entries()) {
    if (wall.name === 'ceiling') continue;
    // the wall's middle, and two patches each way beside its first corner, where the colours of its neighbours lie
    for (const [i, j] of [
      [4, 4],
      [1, 1],
      [1, 7]
    ] as const) {
      const middle = onWall(wall, (i + 1) / PATCHES, (j + 1) / PATCHES);
      const view = viewFrom(add(middle, scale(wall.inward, 0.05)), middle, {
        projection: 'parallel',
        height_m: 2 / PATCHES
      });
      const { mean } = renderScene(scene, view, { width: 12, height: 12, samples: 256, bounces: 80, light: dark });
      for (const channel of [0, 1, 2] as const) {
        let wanted = 0;
        for (const [a, b] of [
          [0, 0],
          [0, 1],
          [1, 0],
          [1, 1]
        ] as const)
          wanted += solved[channel]![w * perWall + (i + a) * PATCHES + j + b]! / 4;
        expect(
          Math.abs(mean[channel] / wanted - 1),
          `${wall.name}, patch ${i} ${j}, channel ${channel}: ${mean[channel]} for ${wanted}`
        ).toBeLessThan(0.015);
        judged++;
      }
    }
  }
  expect(judged).toBe(45);
});
