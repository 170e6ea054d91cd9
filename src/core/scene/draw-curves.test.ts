import { describe, expect, it } from 'vitest';
import { makeScene, matte, quad } from '../../../tests/support/scenes';
import { drawCurves } from './draw-curves';
import type { Scene } from './scene';

const model: Scene = {
  ...makeScene([quad([0, 0, 0], [1, 0, 0], [1, 1, 0], [0, 1, 0], { ...matte(0.5), name: 'card' })]),
  curves: [
    {
      name: 'Contour',
      path: 'Site / Contour',
      segments: Float32Array.of(0, 2, 0, 4, 2, 0, 4, 2, 0, 4, 2, 3),
      material: 0
    }
  ]
};

describe('the curves of a model', () => {
  it('are not there until a width is given', () => {
    expect(drawCurves(model, null)).toBe(model);
  });
  it('are rods of that width along each segment, in the colour of their material, as parts of their own', () => {
    const drawn = drawCurves(model, 20);
    expect(drawn.geometry.triangleMaterials.length).toBe(2 + 2 * 12);
    expect(drawn.parts.map((p) => [p.name, p.path, p.first])).toEqual([
      ['', undefined, 0],
      ['Contour', 'Site / Contour', 2]
    ]);
    const { positions, normals, indices } = drawn.geometry;
    for (let i = 6; i < indices.length; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => [...positions.subarray(indices[i + k]! * 3, indices[i + k]! * 3 + 3)]) as [
        number[],
        number[],
        number[]
      ];
      const n = normals.subarray(indices[i]! * 3, indices[i]! * 3 + 3);
      const [u, v] = [b.map((x, k) => x - a[k]!), c.map((x, k) => x - a[k]!)] as [number[], number[]];
      const face = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
      // faces look outwards, as the normals do
      expect(face[0]! * n[0]! + face[1]! * n[1]! + face[2]! * n[2]!).toBeGreaterThan(0);
    }
    // 1 cm round the first segment, which lies along X at a height of 2 m
    for (let v = 4; v < 4 + 12; v++)
      expect(Math.hypot(positions[v * 3 + 1]! - 2, positions[v * 3 + 2]!)).toBeCloseTo(0.01, 5);
    const ink = drawn.materials[drawn.geometry.triangleMaterials[5]!]!;
    expect([ink.name, ink.baseColor]).toEqual(['card', [0.5, 0.5, 0.5, 1]]);
  });
});
