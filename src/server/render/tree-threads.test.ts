import { describe, expect, it } from 'vitest';
import { grid, kernelModule, makeScene, matte, sphere } from '../../../tests/support/scenes';
import { IDENTITY } from '../../core/math/affine';
import type { Scene } from '../../core/scene/scene';
import { openScene } from '../../kernel/host/kernel';
import { buildPack } from '../../kernel/host/pack';
import { buildRig } from '../../kernel/host/rig';
import { LARGE_TREE } from '../../kernel/host/tree-parts';
import { treeHelpers } from './node-threads';

/** A square of so many triangles that its tree is built in parts, with balls placed over it. */
function large(): Scene {
  const world = makeScene([grid(190, matte(0.5))]);
  const ball = makeScene([sphere([0, 0, 0], 0.02, matte(0.2), false, 8, 16)]).geometry;
  return {
    ...world,
    objects: [ball],
    instances: Array.from({ length: 40 }, (_, i) => ({
      object: 0,
      name: `ball ${i}`,
      matrix: [...IDENTITY.slice(0, 9), (i % 8) / 8, 0.5, Math.floor(i / 8) / 8] as unknown as typeof IDENTITY
    }))
  };
}

describe('a large tree', () => {
  const scene = large();
  const alone = buildPack(scene, kernelModule, () => 0).bytes;
  it('has the same bytes, whatever number of threads built it', () => {
    expect(scene.geometry.triangleMaterials.length).toBeGreaterThan(LARGE_TREE);
    for (const threads of [2, 4])
      expect(
        Buffer.compare(
          Buffer.from(buildPack(scene, kernelModule, () => 0, treeHelpers(threads)).bytes),
          Buffer.from(alone)
        )
      ).toBe(0);
  });
  it('of a pack that has several is its own, though threads of the one before start late', () => {
    const piece = makeScene([grid(170, matte(0.4))]).geometry;
    const several = {
      ...scene,
      objects: [piece, piece, piece],
      instances: [0, 1, 2].map((object) => ({ object, name: `piece ${object}`, matrix: IDENTITY }))
    };
    const once = Buffer.from(buildPack(several, kernelModule, () => 0).bytes);
    for (let n = 0; n < 4; n++)
      expect(Buffer.compare(Buffer.from(buildPack(several, kernelModule, () => 0, treeHelpers(4)).bytes), once)).toBe(
        0
      );
  });
  it('holds every triangle, where it is', () => {
    const { positions, indices } = scene.geometry;
    const count = indices.length / 3;
    const { kernel, memory, at } = openScene(
      { pack: alone, rig: buildRig(alone, scene, kernelModule) },
      kernelModule,
      count * 40
    );
    const f32 = new Float32Array(memory.buffer);
    const i32 = new Int32Array(memory.buffer);
    for (let t = 0; t < count; t++) {
      const middle = [0, 1, 2].map(
        (k) =>
          (positions[indices[t * 3]! * 3 + k]! +
            positions[indices[t * 3 + 1]! * 3 + k]! +
            positions[indices[t * 3 + 2]! * 3 + k]!) /
          3
      );
      // from below, where no ball is
      f32.set([middle[0]!, -1, middle[2]!, 0, 0, 1, 0, 1e9], (at >> 2) + t * 8);
    }
    const out = at + count * 32;
    kernel.intersectMany(at, count, out);
    let wrong = 0;
    for (let t = 0; t < count; t++)
      if (i32[(out >> 2) + t * 2 + 1] !== t || Math.abs(f32[(out >> 2) + t * 2]! - 1) > 1e-5) wrong++;
    expect(wrong).toBe(0);
  });
  it('finds what is placed in it', () => {
    const { kernel, memory, at } = openScene(
      { pack: alone, rig: buildRig(alone, scene, kernelModule) },
      kernelModule,
      40 * 40
    );
    const f32 = new Float32Array(memory.buffer);
    for (const [i, { matrix }] of scene.instances.entries())
      f32.set([matrix[9]! + 0.001, 2, matrix[11]! + 0.001, 0, 0, -1, 0, 1e9], (at >> 2) + i * 8);
    kernel.intersectMany(at, 40, at + 40 * 32);
    for (let i = 0; i < 40; i++) expect(f32[((at + 40 * 32) >> 2) + i * 2]).toBeCloseTo(1.48, 3);
  });
});
