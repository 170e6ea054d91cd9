/** The pieces of the library as files that other programs read, and the tree of a model as list and renderer have it. */
import { describe, expect, it } from 'vitest';
import { Document, NodeIO } from '@gltf-transform/core';
import { validateBytes } from 'gltf-validator';
import { PIECES } from '../../src/core/catalogue/pieces';
import { drawPiece } from '../../src/drawing/pieces';
import { listParts, readHead } from '../../src/formats/gltf/list-parts';
import { readScene } from '../../src/formats/gltf/read-scene';

describe('a piece of the library', () => {
  for (const { key, name, height_m } of PIECES)
    it(`${name} is a valid glTF, stands on the ground and is as tall as the list says`, async () => {
      const glb = await drawPiece(key);
      const { issues } = await validateBytes(glb);
      expect(issues.messages.filter((m) => m.severity === 0)).toEqual([]);
      const { bounds, geometry } = await readScene(glb);
      expect(Math.abs(bounds.min[1])).toBeLessThan(0.03 * height_m);
      expect(Math.abs(bounds.max[1] - height_m) / height_m).toBeLessThan(0.12);
      expect(geometry.indices.length / 3).toBeLessThan(400_000);
      for (let v = 0; v < geometry.normals.length; v += 3)
        if (Math.abs(Math.hypot(...geometry.normals.subarray(v, v + 3)) - 1) > 1e-3)
          throw new Error(`the normal of vertex ${v / 3} of ${key} is not of length one`);
    });
  it('has the same bytes each time', async () => {
    expect(Buffer.from(await drawPiece('cup')).equals(Buffer.from(await drawPiece('cup')))).toBe(true);
  });
});

describe('the tree of a model', () => {
  it('is the same in the list and for the renderer, with sizes and weights of all within', async () => {
    const document = new Document();
    const buffer = document.createBuffer();
    const corners = Float32Array.of(0, 0, 0, 1, 0, 0, 1, 2, 0);
    const position = document.createAccessor().setType('VEC3').setArray(corners).setBuffer(buffer);
    const material = document.createMaterial('ash');
    const mesh = document
      .createMesh('leg')
      .addPrimitive(document.createPrimitive().setAttribute('POSITION', position).setMaterial(material));
    const table = document.createNode('Table').setTranslation([10, 0, 0]);
    for (const x of [0, 3]) table.addChild(document.createNode('Leg').setMesh(mesh).setTranslation([x, 0, 0]));
    const half = Math.SQRT1_2;
    const turned = document.createNode('Shelf').setMesh(mesh).setRotation([0, half, 0, half]).setScale([2, 2, 2]);
    const scene = document.createScene().addChild(table).addChild(turned).addChild(document.createNode('Empty'));
    document.getRoot().setDefaultScene(scene);
    const glb = await new NodeIO().writeBinary(document);
    const parts = listParts(readHead(glb));
    expect(parts.map(({ path, depth, triangles, objects }) => [path, depth, triangles, objects])).toEqual([
      ['Table', 0, 2, 2],
      ['Table / Leg', 1, 1, 1],
      ['Table / Leg (2)', 1, 1, 1],
      ['Shelf', 0, 1, 1]
    ]);
    expect(parts[0]).toMatchObject({ min_m: [10, 0, 0], max_m: [14, 2, 0], materials: ['ash'] });
    const round = (v: readonly number[]) => v.map((x) => Math.round(x * 1e5) / 1e5 + 0);
    expect([round(parts[3]!.min_m), round(parts[3]!.max_m)]).toEqual([
      [0, 0, -2],
      [0, 4, 0]
    ]);
    const read = await readScene(glb);
    expect(read.parts.map((p) => p.path)).toEqual(['Table / Leg', 'Table / Leg (2)', 'Shelf']);
    expect(() => readHead(new Uint8Array(30))).toThrow(/expected a GLB/);
  });
});
