/**
 * A mesh that many nodes share is kept once and placed; lamps and window panes are not, because they are chosen by
 * where they stand.
 */
import { Document, NodeIO } from '@gltf-transform/core';
import { describe, expect, it } from 'vitest';
import { countTriangles } from '../../src/core/scene/scene';
import { readScene } from '../../src/formats/gltf/read-scene';
import { grid } from '../support/scenes';

async function forest(
  uses: number,
  side: number,
  emissive: [number, number, number] = [0, 0, 0],
  extras: Record<string, unknown> = {}
) {
  const document = new Document();
  const buffer = document.createBuffer();
  const { positions, normals, indices } = grid(side, {});
  const primitive = document
    .createPrimitive()
    .setAttribute(
      'POSITION',
      document.createAccessor().setType('VEC3').setArray(Float32Array.from(positions)).setBuffer(buffer)
    )
    .setAttribute(
      'NORMAL',
      document.createAccessor().setType('VEC3').setArray(Float32Array.from(normals!)).setBuffer(buffer)
    )
    .setIndices(document.createAccessor().setType('SCALAR').setArray(Uint32Array.from(indices)).setBuffer(buffer))
    .setMaterial(document.createMaterial('leaf').setEmissiveFactor(emissive).setExtras(extras));
  const mesh = document.createMesh('tree').addPrimitive(primitive);
  const scene = document.createScene();
  for (let i = 0; i < uses; i++)
    scene.addChild(
      document
        .createNode(`tree ${i}`)
        .setMesh(mesh)
        .setTranslation([i * 2, 0, 0])
        .setScale([i % 2 ? -1 : 1, 1, 1])
    );
  return readScene(await new NodeIO().writeBinary(document));
}

describe('pieces of a model', () => {
  it('that stand often are kept once, with the place and name of each', async () => {
    const scene = await forest(6, 60);
    expect(scene.objects).toHaveLength(1);
    expect(scene.geometry.indices).toHaveLength(0);
    expect(scene.instances.map((i) => i.name)).toEqual([0, 1, 2, 3, 4, 5].map((i) => `tree ${i}`));
    expect(countTriangles(scene)).toBe(6 * 2 * 60 * 60);
    expect(scene.bounds).toEqual({ min: [0, 0, 0], max: [10, 0, 1] });
  });

  it('whose solid texture makes no sense are refused by the name of their material', async () => {
    await expect(forest(1, 4, [0, 0, 0], { solid_texture: { kind: 'cheese' } })).rejects.toThrow(
      /material "leaf": solid_texture.kind "cheese" is not known.*correct it/
    );
    expect(
      (
        await forest(1, 4, [0, 0, 0], {
          solid_texture: {
            kind: 'noise',
            size_m: 0.1,
            colors: [
              [0, 0, 0],
              [1, 1, 1],
              [0, 0, 0]
            ]
          }
        })
      ).materials[0]!.solid_texture
    ).toMatchObject({ kind: 'noise', size_m: 0.1 });
  });

  it('that are small, or glow, become triangles of the world', async () => {
    const small = await forest(6, 4);
    expect(small.objects).toHaveLength(0);
    expect(small.parts.map((p) => p.first)).toEqual([0, 1, 2, 3, 4, 5].map((i) => i * 32));
    const glowing = await forest(6, 60, [1, 1, 1]);
    expect(glowing.objects).toHaveLength(0);
    expect(glowing.geometry.indices.length / 3).toBe(6 * 2 * 60 * 60);
  });
});
