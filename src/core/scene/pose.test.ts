import { describe, expect, it } from 'vitest';
import { makeScene, matte, quad } from '../../../tests/support/scenes';
import { applyAffine, IDENTITY } from '../math/affine';
import { type PosedPart, poseMatrix, poseScene } from './pose';
import type { Scene } from './scene';

const unposed: PosedPart = { part: '', seen: 'whole', turn_deg: [0, 0, 0], move_m: [0, 0, 0], about_m: [0, 0, 0] };
const posed = (part: string, less: Partial<PosedPart>): PosedPart => ({ ...unposed, part, ...less });

/** Two upright squares of 1 m in the world, a third placed twice, and a lamp. */
function scene(): Scene {
  const square = (x: number) => quad([x, 0, 0], [x + 1, 0, 0], [x + 1, 1, 0], [x, 1, 0], matte(0.5));
  const made = makeScene([square(0), square(2)]);
  return {
    ...made,
    parts: [
      { name: 'Door', path: 'House / Door', first: 0, matrix: IDENTITY },
      { name: 'Wall', path: 'House / Wall', first: 2, matrix: IDENTITY }
    ],
    objects: [makeScene([square(0)]).geometry],
    instances: [1, 2].map((n) => ({ object: 0, matrix: IDENTITY, name: `Tree ${n}`, path: `Site / Tree ${n}` })),
    lights: [
      { kind: 'point', name: 'Lantern', path: 'House / Door / Lantern', position: [1, 1, 1], intensity: [1, 1, 1] }
    ]
  };
}
const corner = ({ geometry }: Scene, triangle: number): number[] => {
  const v = geometry.indices[triangle * 3]!;
  return [...geometry.positions.subarray(v * 3, v * 3 + 3)].map((x) => Math.round(x * 1e5) / 1e5 + 0);
};

describe('a pose', () => {
  it('turns about its pivot: X, then Y, then Z, right-handed', () => {
    const at = (turn_deg: [number, number, number]) =>
      applyAffine(poseMatrix(posed('', { turn_deg, about_m: [1, 0, 0] })), [2, 0, 0]).map(
        (v) => Math.round(v * 1e6) / 1e6 + 0
      );
    expect(at([0, 90, 0])).toEqual([1, 0, -1]);
    expect(at([0, 0, 90])).toEqual([1, 1, 0]);
    expect(at([90, 0, 0])).toEqual([2, 0, 0]);
    expect(at([0, 90, 90])).toEqual([1, 0, -1]);
    expect(at([90, 90, 0])).toEqual([1, 0, -1]);
  });
  it('moves one part with its normals and its lamp, and leaves the others and the bounds', () => {
    const before = scene();
    const after = poseScene(before, [posed('House / Door', { turn_deg: [0, 90, 0], move_m: [0, 0, 5] })]);
    expect(corner(after, 0)).toEqual([0, 0, 5]);
    expect(corner(after, 2)).toEqual(corner(before, 2));
    const normal = after.geometry.normals.subarray(0, 3);
    expect([...normal].map((v) => Math.round(v) + 0)).toEqual([1, 0, 0]);
    expect(after.lights[0]).toMatchObject({ position: [expect.closeTo(1), 1, expect.closeTo(4)] });
    expect(after.bounds).toEqual(before.bounds);
    expect(corner(before, 0)).toEqual([0, 0, 0]);
  });
  it('of a part within a part: the inner first, then the outer', () => {
    const after = poseScene(scene(), [
      posed('House', { turn_deg: [0, 90, 0] }),
      posed('House / Wall', { move_m: [1, 0, 0] })
    ]);
    // 2 m along X, moved to 3, turned to 3 m against Z
    expect(corner(after, 2)).toEqual([0, 0, -3]);
    expect(after.instances[0]!.matrix).toEqual(IDENTITY);
  });
  it('leaves parts out with their lamps, and refuses to leave out everything', () => {
    const after = poseScene(scene(), [posed('House / Door', { seen: 'out' }), posed('Site / Tree 1', { seen: 'out' })]);
    expect(after.geometry.indices.length).toBe(6);
    expect(after.parts.map((p) => p.name)).toEqual(['Wall']);
    expect(after.instances.map((i) => i.name)).toEqual(['Tree 2']);
    expect(after.lights).toEqual([]);
    expect(() => poseScene(scene(), [posed('', { seen: 'out' })])).toThrow(/leaves nothing/);
  });
  it('gives parts that the camera does not see materials of their own', () => {
    const after = poseScene(scene(), [
      posed('House / Wall', { seen: 'shadow' }),
      posed('Site / Tree 2', { seen: 'indirect' })
    ]);
    const seen = (triangle: number) => after.materials[after.geometry.triangleMaterials[triangle]!]!.unseen;
    expect([seen(0), seen(2)]).toEqual([undefined, 'mirrors']);
    const of = (i: number) => after.materials[after.objects[after.instances[i]!.object]!.triangleMaterials[0]!]!.unseen;
    expect([of(0), of(1)]).toEqual([undefined, 'camera']);
  });
  it('of a path that is not there changes nothing', () => {
    const before = scene();
    expect(poseScene(before, [posed('House / Roof', { move_m: [1, 0, 0] })]).geometry).toBe(before.geometry);
  });
});
