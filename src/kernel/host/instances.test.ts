/**
 * Objects that stand in many places: the same picture as their copies, and a site of many millions of triangles in
 * little memory.
 */
import { describe, expect, it } from 'vitest';
import {
  grid,
  kernelModule,
  makeScene,
  matte,
  quad,
  renderScene,
  sphere,
  viewFrom
} from '../../../tests/support/scenes';
import { type Affine, affine, applyAffine, invertAffine, rigidPart } from '../../core/math/affine';
import type { Vec3 } from '../../core/math/vec3';
import { createRandom } from '../../core/sampling/random';
import { countTriangles, type Scene, type SceneGeometry, sceneBounds } from '../../core/scene/scene';
import { openScene } from './kernel';
import { compileScene } from './rig';

/** Turned, stretched, mirrored and moved. */
function randomMatrix(random: () => number, spread = 3): Affine {
  const turn = random() * 6;
  const tilt = random() * 6;
  const [c, s, d, e] = [Math.cos(turn), Math.sin(turn), Math.cos(tilt), Math.sin(tilt)];
  const size = () => (0.4 + random()) * (random() < 0.3 ? -1 : 1);
  const [a, b, k] = [size(), size(), size()];
  return affine(
    [a * c, a * s * d, a * s * e],
    [-b * s, b * c * d, b * c * e],
    [0, -k * e, k * d],
    [spread * (random() - 0.5), spread * (random() - 0.5), spread * (random() - 0.5)]
  );
}

const floor = quad([-9, -3, 9], [9, -3, 9], [9, -3, -9], [-9, -3, -9], matte(0.6));
const thing = makeScene([
  sphere([0.2, 0, 0], 0.5, matte([0.7, 0.3, 0.2]), false, 12, 16),
  quad([-1, 0.6, 0], [1, 0.6, 0], [1, 1, 0.4], [-1, 1, 0.4], matte([0.2, 0.5, 0.8]))
]);

/** Copies of the thing as placed objects, and the same as triangles of the world. */
function bothWays(matrices: readonly Affine[]): { placed: Scene; flat: Scene } {
  const ground = makeScene([floor]);
  const shift = ground.materials.length;
  const object: SceneGeometry = {
    ...thing.geometry,
    triangleMaterials: thing.geometry.triangleMaterials.map((m) => m + shift)
  };
  const materials = [...ground.materials, ...thing.materials];
  const placed: Scene = {
    ...ground,
    materials,
    objects: [object],
    instances: matrices.map((matrix, i) => ({ object: 0, matrix, name: `thing ${i}` }))
  };
  const joined = makeScene([
    floor,
    ...matrices.flatMap((m) =>
      [0, 1].map((part) => {
        const { positions, normals, indices, triangleMaterials } = thing.geometry;
        const normal = invertAffine(m);
        const mirrored =
          m[0] * (m[4] * m[8] - m[5] * m[7]) - m[3] * (m[1] * m[8] - m[2] * m[7]) + m[6] * (m[1] * m[5] - m[2] * m[4]) <
          0;
        const at = (a: Float32Array, i: number): Vec3 => [a[i * 3]!, a[i * 3 + 1]!, a[i * 3 + 2]!];
        const count = positions.length / 3;
        const own = [...indices].filter((_, i) => triangleMaterials[Math.floor(i / 3)] === part);
        return {
          positions: Array.from({ length: count }, (_, i) => [...applyAffine(m, at(positions, i))]).flat(),
          normals: Array.from({ length: count }, (_, i) => {
            const n = at(normals, i);
            const moved = [0, 1, 2].map(
              (k) => normal[k * 3]! * n[0] + normal[k * 3 + 1]! * n[1] + normal[k * 3 + 2]! * n[2]
            );
            const size = Math.hypot(...moved);
            return moved.map((v) => v / size);
          }).flat(),
          indices: own.map((_, i) => own[mirrored && i % 3 > 0 ? i + (i % 3 === 1 ? 1 : -1) : i]!),
          material: thing.materials[part]!
        };
      })
    )
  ]);
  return { placed, flat: joined };
}

describe('placed objects', () => {
  const random = createRandom(5);
  const matrices = Array.from({ length: 24 }, () => randomMatrix(random));

  it('give the picture of their copies, whether turned, stretched or mirrored', () => {
    const { placed, flat } = bothWays(matrices);
    expect(countTriangles(placed)).toBe(countTriangles(flat));
    const view = viewFrom([0, 1, 7], [0, 0, 0]);
    const [one, other] = [placed, flat].map(
      (s) => renderScene(s, view, { width: 48, height: 48, samples: 16, bounces: 4 }).pixels
    );
    // the same paths but for rounding: most pixels agree closely, and all together do
    const far = one!.filter((p, i) => Math.abs(p[1] - other![i]![1]) > 1e-3).length;
    expect(far / one!.length).toBeLessThan(0.02);
    const sum = (pixels: typeof one) => pixels!.reduce((s, p) => s + p[1], 0);
    expect(Math.abs(sum(one) / sum(other) - 1)).toBeLessThan(1e-3);
  });

  it('lie within the stated bounds', () => {
    const { placed } = bothWays(matrices);
    const { min, max } = sceneBounds(placed);
    for (const { matrix } of placed.instances) {
      for (let i = 0; i < thing.geometry.positions.length; i += 3) {
        const p = applyAffine(matrix, [
          thing.geometry.positions[i]!,
          thing.geometry.positions[i + 1]!,
          thing.geometry.positions[i + 2]!
        ]);
        expect(p.every((v, k) => v >= min[k]! - 1e-6 && v <= max[k]! + 1e-6)).toBe(true);
      }
    }
  });

  it('hold ten million triangles well below 1 GB', () => {
    const side = 70; // 9800 triangles
    const object = makeScene([grid(side, matte(0.5))]).geometry;
    const random2 = createRandom(8);
    const instances = Array.from({ length: 1024 }, (_, i) => ({
      object: 0,
      matrix: randomMatrix(random2, 200),
      name: `${i}`
    }));
    const scene: Scene = { ...makeScene([floor]), objects: [object], instances };
    const pack = compileScene(scene, kernelModule);
    expect(pack.triangles).toBeGreaterThan(10e6);
    expect(pack.pack.length + pack.rig.length).toBeLessThan(8e6);
    // and a ray finds the nearest: checked against all objects one by one
    const { kernel, memory, at } = openScene(pack, kernelModule, 64);
    const f32 = new Float32Array(memory.buffer);
    let hits = 0;
    for (let n = 0; n < 200; n++) {
      const o: Vec3 = [150 * (random2() - 0.5), 150 * (random2() - 0.5), 150 * (random2() - 0.5)];
      const target = applyAffine(instances[n * 5]!.matrix, [random2(), 0, random2()]);
      const d = target.map((v, k) => v - o[k]!);
      const size = Math.hypot(...d);
      const unit = d.map((v) => v / size) as unknown as Vec3;
      f32.set([...o, 0, ...unit, Number.POSITIVE_INFINITY], at >> 2);
      kernel.intersectMany(at, 1, at + 32);
      let expected = Number.POSITIVE_INFINITY;
      for (const { matrix } of instances) {
        const back = invertAffine(matrix);
        const p = applyAffine(back, o);
        const q = applyAffine(back, [o[0] + unit[0], o[1] + unit[1], o[2] + unit[2]]);
        const t = -p[1] / (q[1] - p[1]);
        const [x, z] = [p[0] + t * (q[0] - p[0]), p[2] + t * (q[2] - p[2])];
        if (t > 0 && x >= 0 && x <= 1 && z >= 0 && z <= 1) expected = Math.min(expected, t);
      }
      const floorAt = (-3 - o[1]) / unit[1];
      if (floorAt > 0 && Math.abs(o[0] + floorAt * unit[0]) < 9 && Math.abs(o[2] + floorAt * unit[2]) < 9)
        expected = Math.min(expected, floorAt);
      if (Math.abs(f32[(at + 32) >> 2]! - expected) < 1e-3 * expected) hits++;
    }
    expect(hits).toBeGreaterThanOrEqual(198); // an edge may be missed by rounding
  });
});

describe('affine maps', () => {
  it('are undone by their inverse', () => {
    const random = createRandom(2);
    for (let i = 0; i < 50; i++) {
      const m = randomMatrix(random);
      const p: Vec3 = [random(), random(), random()];
      const back = applyAffine(invertAffine(m), applyAffine(m, p));
      expect(Math.hypot(...back.map((v, k) => v - p[k]!))).toBeLessThan(1e-9);
    }
  });

  it('keep lengths in their rigid part', () => {
    const m = rigidPart(randomMatrix(createRandom(3)));
    const [a, b] = [applyAffine(m, [1, 2, 3]), applyAffine(m, [0, 0, 0])];
    expect(Math.hypot(...a.map((v, k) => v - b[k]!))).toBeCloseTo(Math.sqrt(14), 9);
  });
});
