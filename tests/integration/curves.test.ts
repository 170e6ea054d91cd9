/** Curves of a file: kept through the import, read into the scene, and told in the report. */
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Document, NodeIO } from '@gltf-transform/core';
import { validateBytes } from 'gltf-validator';
import { describe, expect, it } from 'vitest';
import { drawCurves } from '../../src/core/scene/draw-curves';
import { readScene } from '../../src/formats/gltf/read-scene';
import { importModel } from '../../src/server/usecases/import-model';

const folder = await mkdtemp(join(tmpdir(), 'sphaera-curves-'));
async function bringIn(name: string, bytes: Uint8Array | string) {
  const path = join(folder, name);
  await writeFile(path, bytes);
  const read = await importModel({ files: [{ name, path }], unit: 'cm', up: 'y' });
  if (!read.ok) throw new Error(read.message);
  const { issues } = await validateBytes(read.value.glb);
  expect(issues.messages.filter((m) => m.severity === 0)).toEqual([]);
  return { report: read.value.report, scene: await readScene(read.value.glb) };
}
const round = (numbers: ArrayLike<number>) => Array.from(numbers, (v) => Math.round(v * 1e4) / 1e4 + 0);

describe('the curves of a file', () => {
  it('come in from glTF in all its ways, beside surfaces of the same object and by themselves', async () => {
    const document = new Document();
    const buffer = document.createBuffer();
    const accessor = (...numbers: number[]) =>
      document.createAccessor().setType('VEC3').setArray(Float32Array.from(numbers)).setBuffer(buffer);
    const corners = accessor(0, 0, 0, 100, 0, 0, 100, 100, 0);
    const primitive = (mode: 1 | 2 | 3 | 4) =>
      document.createPrimitive().setMode(mode).setAttribute('POSITION', corners);
    const card = document.createMesh('card').addPrimitive(primitive(4)).addPrimitive(primitive(2));
    const scene = document
      .createScene()
      .addChild(document.createNode('Card').setMesh(card))
      .addChild(
        document
          .createNode('Path')
          .setMesh(document.createMesh('path').addPrimitive(primitive(3)))
          .setTranslation([0, 50, 0])
      );
    document.getRoot().setDefaultScene(scene);
    const { report, scene: read } = await bringIn('card.glb', await new NodeIO().writeBinary(document));
    expect(report.curves).toBe(3 + 2);
    expect([report.triangles, report.size_m]).toEqual([1, [1, 1, 0]]);
    expect(read.curves!.map(({ path, segments }) => [path, segments.length / 6])).toEqual([
      ['Card / Card curves', 3],
      ['Path', 2]
    ]);
    expect(round(read.curves![1]!.segments)).toEqual([0, 0.5, 0, 1, 0.5, 0, 1, 0.5, 0, 1, 1.5, 0]);
    expect(drawCurves(read, 2).geometry.triangleMaterials.length).toBe(1 + 5 * 12);
  });
  it('come in from OBJ, and stay when the model is repaired', async () => {
    const obj = 'v 0 0 0\nv 10 0 0\nv 10 10 0\nv 0 0 5\nv 10 0 5\no Card\nf 1 2 3\nf 1 2 3\no Rail\nl 4 5\n';
    const { report, scene } = await bringIn('rail.obj', obj);
    expect(report.health).toEqual([{ kind: 'doubled', count: 1, where: ['Card'], repaired: true }]);
    expect(report.curves).toBe(1);
    expect(round(scene.curves![0]!.segments)).toEqual([0, 0, 0.05, 0.1, 0, 0.05]);
  });
});
