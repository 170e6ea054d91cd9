import { describe, expect, it } from 'vitest';
import { grid, makeScene, matte, quad } from '../../../tests/support/scenes';
import { IDENTITY } from '../math/affine';
import type { Scene } from './scene';
import { heaviestGroups, setAside } from './set-aside';

/** A floor of 2 triangles, a wall of 8, and three trees of 18 placed. */
function garden(): Scene {
  const world = makeScene([quad([-1, 0, 1], [1, 0, 1], [1, 0, -1], [-1, 0, -1], matte(0.5)), grid(2, matte(0.2))]);
  const tree = makeScene([grid(3, matte(0.1))]).geometry;
  return {
    ...world,
    parts: [
      { name: 'Floor', first: 0, matrix: IDENTITY },
      { name: 'Wall 2', first: 2, matrix: IDENTITY }
    ],
    objects: [tree],
    instances: [1, 2, 3].map((n) => ({ object: 0, matrix: IDENTITY, name: `Tree.00${n}` }))
  };
}

describe('what is set aside', () => {
  it('is found by its weight, copies counted as often as they stand', () => {
    expect(heaviestGroups(garden())).toEqual([
      { group: 'Tree', triangles: 54, count: 3 },
      { group: 'Wall', triangles: 8, count: 1 },
      { group: 'Floor', triangles: 2, count: 1 }
    ]);
    expect(heaviestGroups(garden(), 0.5).map((g) => g.group)).toEqual(['Tree']);
  });
  it('is gone, with the rest where it was and numbered anew', () => {
    const without = setAside(garden(), ['tree', 'Floor']);
    expect(without.instances).toEqual([]);
    expect(without.parts).toEqual([{ name: 'Wall 2', first: 0, matrix: IDENTITY }]);
    expect([...without.geometry.indices]).toEqual([...garden().geometry.indices.slice(6)]);
    expect(without.geometry.triangleMaterials.length).toBe(8);
    expect(without.bounds).toEqual(garden().bounds);
  });
  it('leaves a scene as it is when nothing is, and never takes all of it', () => {
    const scene = garden();
    expect(setAside(scene, [])).toBe(scene);
    expect(setAside(scene, ['Hedge']).geometry).toBe(scene.geometry);
    expect(() => setAside(scene, ['Floor', 'Wall', 'Tree'])).toThrow(/leaves nothing of the model/);
  });
});
