import { describe, expect, it } from 'vitest';
import { grid, makeScene, matte, type Piece, quad, sphere } from '../../../tests/support/scenes';
import { openReducer } from '../../formats/reduce-mesh';
import { IDENTITY } from '../math/affine';
import { createRandom } from '../sampling/random';
import { boundsOf, countTriangles, type Scene, type SceneGeometry } from './scene';
import { heaviestGroups, slimDown, weighSlim } from './set-aside';
import { slimCopy } from './slim-copy';
import { joinGeometries, takeTriangles } from './triangles';

const reducer = await openReducer();

function area({ positions, indices }: SceneGeometry): number {
  let sum = 0;
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => [...positions.subarray(indices[t + k]! * 3, indices[t + k]! * 3 + 3)]) as [
      number[],
      number[],
      number[]
    ];
    const [u, v] = [b.map((x, k) => x - a[k]!), c.map((x, k) => x - a[k]!)] as [number[], number[]];
    sum += Math.hypot(u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!) / 2;
  }
  return sum;
}

/** A ball of leaves of two triangles each, some of them of another material. */
function leaves(count: number): Piece[] {
  const random = createRandom(5);
  return [0, 1].map((m) => {
    const piece: Piece = { positions: [], indices: [], normals: [], material: matte(0.2 + 0.3 * m) };
    for (let i = 0; i < count / 2; i++) {
      const at = [random(), random(), random()].map((v) => 2 * v - 1);
      const first = piece.positions.length / 3;
      for (const [x, y] of [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1]
      ] as const)
        piece.positions.push(at[0]! + 0.03 * x, at[1]! + 0.03 * y, at[2]!);
      for (let k = 0; k < 4; k++) piece.normals!.push(0, 0, 1);
      piece.indices.push(first, first + 1, first + 2, first, first + 2, first + 3);
    }
    return piece;
  });
}

describe('a slim copy', () => {
  it('of leaves keeps one in five, covers what they covered, and stands where they stood', () => {
    const { geometry, materials } = makeScene(leaves(2000));
    const slim = slimCopy(geometry, materials, reducer);
    expect(slim.triangleMaterials.length).toBe(geometry.triangleMaterials.length / 5);
    expect(area(slim) / area(geometry)).toBeCloseTo(1, 2);
    expect(new Set(slim.triangleMaterials)).toEqual(new Set([0, 1]));
    const [was, is] = [boundsOf(geometry.positions), boundsOf(slim.positions)];
    for (let k = 0; k < 3; k++) {
      expect(Math.abs(is.min[k]! - was.min[k]!)).toBeLessThan(0.08);
      expect(Math.abs(is.max[k]! - was.max[k]!)).toBeLessThan(0.08);
    }
  });
  it('of a ball is a ball of a tenth of its triangles', () => {
    const { geometry, materials } = makeScene([sphere([0, 0, 0], 1, matte(0.5))]);
    const slim = slimCopy(geometry, materials, reducer);
    expect(slim.triangleMaterials.length / geometry.triangleMaterials.length).toBeLessThan(0.11);
    expect(slim.triangleMaterials.length).toBeGreaterThan(500);
    expect(area(slim) / (4 * Math.PI)).toBeGreaterThan(0.97);
    for (let i = 0; i < slim.positions.length; i += 3)
      expect(Math.hypot(slim.positions[i]!, slim.positions[i + 1]!, slim.positions[i + 2]!)).toBeCloseTo(1, 4);
  });
  it('opens no edge where two materials meet', () => {
    const halves = makeScene([sphere([0, 0, 0], 1, matte(0.5)), grid(2, matte(0.1))]);
    const count = halves.geometry.triangleMaterials.length - 8;
    const { geometry } = halves;
    const two = {
      ...takeTriangles(
        geometry,
        Uint32Array.from({ length: count }, (_, i) => i)
      ),
      triangleMaterials: Uint32Array.from({ length: count }, (_, i) => (i < count / 2 ? 0 : 1))
    };
    const slim = slimCopy(two, halves.materials, reducer);
    // each edge, by the places of its ends, has two triangles
    const place = (v: number) =>
      [...slim.positions.subarray(v * 3, v * 3 + 3)].map((x) => Math.round(x * 1e5) || 0).join(' ');
    const edges = new Map<string, number>();
    for (let t = 0; t < slim.indices.length; t += 3) {
      for (let k = 0; k < 3; k++) {
        const ends = [place(slim.indices[t + k]!), place(slim.indices[t + ((k + 1) % 3)]!)].sort();
        if (ends[0] !== ends[1]) edges.set(ends.join(', '), (edges.get(ends.join(', ')) ?? 0) + 1);
      }
    }
    expect([...edges.values()].filter((n) => n !== 2)).toEqual([]);
    expect(slim.triangleMaterials.length).toBeLessThan(count / 2);
  });
  it('keeps what glows, and what is light already', () => {
    const lamp = makeScene([sphere([0, 0, 0], 1, { ...matte(0.5), emissive: [1, 1, 1] })]);
    expect(slimCopy(lamp.geometry, lamp.materials, reducer).indices.length).toBe(lamp.geometry.indices.length);
    const floor = makeScene([quad([-1, 0, 1], [1, 0, 1], [1, 0, -1], [-1, 0, -1], matte(0.5))]);
    expect(slimCopy(floor.geometry, floor.materials, reducer)).toBe(floor.geometry);
  });
});

describe('a scene with slim copies', () => {
  const garden = (): Scene => {
    const ball = sphere([0, 0, 0], 1, matte(0.5));
    const world = makeScene([
      quad([-1, 0, 1], [1, 0, 1], [1, 0, -1], [-1, 0, -1], matte(0.5)),
      ball,
      sphere([4, 0, 0], 1, matte(0.4))
    ]);
    const count = ball.indices.length / 3;
    const tree = makeScene([ball]).geometry;
    return {
      ...world,
      parts: [
        { name: 'Floor', first: 0, matrix: IDENTITY },
        { name: 'Hedge 1', first: 2, matrix: IDENTITY },
        { name: 'Dome', first: 2 + count, matrix: IDENTITY }
      ],
      objects: [tree],
      instances: [
        { object: 0, matrix: IDENTITY, name: 'Tree.001' },
        { object: 0, matrix: IDENTITY, name: 'Post' }
      ]
    };
  };
  it('has them where they are asked for, all else as it was', () => {
    const scene = garden();
    const slim = slimDown(scene, ['hedge', 'Tree'], reducer);
    const weights = new Map(heaviestGroups(slim, 0).map((g) => [g.group, g.triangles]));
    const whole = new Map(heaviestGroups(scene, 0).map((g) => [g.group, g.triangles]));
    for (const kept of ['Floor', 'Dome', 'Post']) expect(weights.get(kept)).toBe(whole.get(kept));
    for (const thin of ['Hedge', 'Tree']) expect(weights.get(thin)! / whole.get(thin)!).toBeLessThan(0.11);
    expect(slim.objects.length).toBe(2);
    expect(slim.parts.map((p) => p.name)).toEqual(['Floor', 'Hedge 1', 'Dome']);
    // the dome's own triangles follow the hedge's fewer ones
    const dome = slim.geometry.indices
      .slice(slim.parts[2]!.first * 3)
      .map((v) => Math.round(slim.geometry.positions[v * 3]!));
    expect([Math.min(...dome), Math.max(...dome)]).toEqual([3, 5]);
    expect(countTriangles(scene)).toBe(countTriangles(garden()));
    expect(slimDown(scene, [], reducer)).toBe(scene);
    // alone in the scene, the old object goes
    expect(slimDown({ ...scene, instances: scene.instances.slice(0, 1) }, ['Tree'], reducer).objects.length).toBe(1);
  });
  it('is weighed beforehand as it will be', () => {
    const scene = garden();
    const weighed = weighSlim(scene, heaviestGroups(scene), reducer);
    for (const { group, slim } of weighed)
      expect(slim).toBe(heaviestGroups(slimDown(scene, [group], reducer), 0).find((g) => g.group === group)!.triangles);
  });
});

it('parts taken out and put together again are what they were', () => {
  const { geometry } = makeScene([sphere([0, 0, 0], 1, matte(0.5), false, 6, 12), grid(3, matte(0.1))]);
  const half = geometry.triangleMaterials.length / 2;
  const of = (from: number, to: number) =>
    takeTriangles(
      geometry,
      Uint32Array.from({ length: to - from }, (_, i) => from + i)
    );
  const joined = joinGeometries([of(0, half), of(half, 2 * half)]);
  const corners = (g: SceneGeometry) =>
    [...g.indices].map((v) => [...g.positions.subarray(v * 3, v * 3 + 3), ...g.normals.subarray(v * 3, v * 3 + 3)]);
  expect(corners(joined)).toEqual(corners(geometry));
  expect(joined.triangleMaterials).toEqual(geometry.triangleMaterials);
});
