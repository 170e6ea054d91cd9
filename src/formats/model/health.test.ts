import { Document, type Primitive } from '@gltf-transform/core';
import { KHRLightsPunctual, KHRMaterialsVolume } from '@gltf-transform/extensions';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import type { Finding, Repair } from '../../core/scene/health';
import { examineHealth } from './health';
import { examineTriangles } from './triangles';

// corner i of a cube of 1 m has its three bits as coordinates; faces look outwards
const CUBE = [
  0, 2, 1, 1, 2, 3, 4, 5, 6, 5, 7, 6, 0, 1, 4, 1, 5, 4, 2, 6, 3, 3, 6, 7, 0, 4, 2, 2, 4, 6, 1, 3, 5, 3, 7, 5
];
const inwards = (triangles: readonly number[]) => triangles.map((_, i) => triangles[i - (i % 3) + [0, 2, 1][i % 3]!]!);

interface Sick {
  glass?: boolean;
  /** Of each corner, away from the middle; -1 towards it. */
  normals?: 1 | -1;
  at?: number;
}
function cube(triangles: readonly number[], { glass = false, normals, at = 0 }: Sick = {}) {
  const document = new Document();
  const buffer = document.createBuffer();
  const corners = Float32Array.from({ length: 24 }, (_, i) => (Math.floor(i / 3) >> (i % 3)) & 1);
  const material = document.createMaterial('clear');
  if (glass)
    material.setExtension(
      'KHR_materials_volume',
      document.createExtension(KHRMaterialsVolume).createVolume().setThicknessFactor(1)
    );
  const accessor = (array: Float32Array | Uint16Array, type: 'VEC3' | 'SCALAR') =>
    document
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor(corners, 'VEC3'))
    .setIndices(accessor(Uint16Array.from(triangles), 'SCALAR'))
    .setMaterial(material);
  if (normals)
    primitive.setAttribute(
      'NORMAL',
      accessor(
        corners.map((v) => ((v - 0.5) * 2 * normals) / Math.sqrt(3)),
        'VEC3'
      )
    );
  const mesh = document.createMesh('cube').addPrimitive(primitive);
  const scene = document.createScene().addChild(document.createNode('Vase').setMesh(mesh).setTranslation([at, 0, 0]));
  document.getRoot().setDefaultScene(scene);
  return { document, primitive };
}
const plain = (findings: readonly Finding[]) => findings.map(({ kind, count, where }) => ({ kind, count, where }));
async function repaired(triangles: readonly number[], repairs: readonly Repair[], sick: Sick = {}) {
  const { document, primitive } = cube(triangles, sick);
  const { findings, repair } = await examineHealth(document, []);
  const done = await repair(repairs);
  const { findings: left } = await examineHealth(document, []);
  return { findings: plain(findings), done, left: plain(left), primitive };
}
const corners = (primitive: Primitive) => primitive.getIndices()!.getCount();

describe('the health of a model', () => {
  it('that is sound has no finding', async () => {
    expect((await repaired(CUBE, ['flat', 'doubled'], { normals: 1 })).findings).toEqual([]);
    expect((await repaired(CUBE, [], { glass: true })).findings).toEqual([]);
  });
  it('finds triangles without an area and on another, whichever way they face, and takes them out', async () => {
    const { findings, done, left, primitive } = await repaired(
      [...CUBE, 0, 0, 1, 1, 2, 0, 0, 2, 1],
      ['flat', 'doubled']
    );
    expect(findings).toEqual([
      { kind: 'flat', count: 1, where: ['Vase'] },
      { kind: 'doubled', count: 2, where: ['Vase'] }
    ]);
    expect([done, left, corners(primitive)]).toEqual([['flat', 'doubled'], [], 36]);
  });
  it('repairs what it is asked for alone', async () => {
    const { done, left } = await repaired([...CUBE, 0, 0, 1, 0, 2, 1], ['flat', 'textures']);
    expect(done).toEqual(['flat']);
    expect(left.map((f) => f.kind)).toEqual(['doubled']);
  });
  it('finds a closed body whose faces look inwards, and turns it with its normals', async () => {
    const { findings, left, primitive } = await repaired(inwards(CUBE), ['inside_out'], { normals: -1 });
    expect(findings).toEqual([{ kind: 'inside_out', count: 1, where: ['Vase'] }]);
    expect(left).toEqual([]);
    // the corner farthest from the origin looks away from it again
    expect([...primitive.getAttribute('NORMAL')!.getArray()!.slice(21)].every((v) => v > 0)).toBe(true);
    // an open one has no inside
    expect((await repaired(inwards(CUBE).slice(3), [])).findings).toEqual([]);
  });
  it('finds normals that look away from their faces, and makes them anew', async () => {
    const { findings, left, primitive } = await repaired(CUBE, ['normals'], { normals: -1 });
    expect(findings).toEqual([{ kind: 'normals', count: 1, where: ['Vase'] }]);
    expect(left).toEqual([]);
    // a cube's edges turn by more than the crease angle: each face has its own normals
    expect(primitive.getAttribute('NORMAL')!.getCount()).toBe(24);
  });
  it('finds glass that is no closed body, and closes it', async () => {
    // two triangles of one face are missing: its four edges are open
    const { findings, left, primitive } = await repaired(CUBE.slice(6), ['open_glass'], { glass: true, normals: 1 });
    expect(findings).toEqual([{ kind: 'open_glass', count: 4, where: ['Vase'] }]);
    expect(left).toEqual([]);
    expect(corners(primitive)).toBe(36);
    expect(examineTriangles(primitive, true)).toMatchObject({ open: [], insideOut: false });
    // the cap looks outwards, as the face that was missing did
    expect([...primitive.getAttribute('NORMAL')!.getArray()!.slice(24, 27)].map((v) => v + 0)).toEqual([0, 0, -1]);
    expect((await repaired(CUBE.slice(6), [])).findings).toEqual([]);
  });
  it('finds materials that are the same but for their names, and joins them', async () => {
    const { document, primitive } = cube(CUBE);
    const other = document.createMaterial('clear.001');
    document.createMaterial('red').setBaseColorFactor([1, 0, 0, 1]);
    primitive.setMaterial(other);
    const worn = (name: string) =>
      document
        .getRoot()
        .listMaterials()
        .find((m) => m.getName() === name)!;
    const copy = primitive.clone().setMaterial(worn('clear'));
    document.getRoot().listMeshes()[0]!.addPrimitive(copy);
    const { findings, repair } = await examineHealth(document, []);
    expect(plain(findings)).toEqual([{ kind: 'materials', count: 1, where: ['clear.001'] }]);
    await repair(['materials']);
    expect(primitive.getMaterial()!.getName()).toBe('clear');
    // what nothing wears is no finding
    expect(document.getRoot().listMaterials().length).toBe(2);
  });
  it('finds pictures larger than a print shows, and makes them smaller', async () => {
    const { document } = cube(CUBE);
    const image = await sharp({ create: { width: 5000, height: 10, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    const texture = document.createTexture('weave').setImage(new Uint8Array(image)).setMimeType('image/png');
    document.getRoot().listMaterials()[0]!.setBaseColorTexture(texture);
    const { findings, repair } = await examineHealth(document, ['gone.png']);
    expect(plain(findings)).toEqual([
      { kind: 'textures', count: 1, where: ['weave'] },
      { kind: 'pictures', count: 1, where: ['gone.png'] }
    ]);
    await repair(['textures']);
    expect((await sharp(texture.getImage()!).metadata()).width).toBe(4096);
  });
  it('tells lamps of unlikely strength, and a model that lies far from its origin', async () => {
    const { document } = cube(CUBE, { at: 500 });
    const lights = document.createExtension(KHRLightsPunctual);
    const lamp = (name: string, candela: number) =>
      document
        .getRoot()
        .getDefaultScene()!
        .addChild(
          document
            .createNode(name)
            .setExtension('KHR_lights_punctual', lights.createLight().setType('point').setIntensity(candela))
        );
    lamp('Pendant', 120);
    lamp('Beacon', 5e7);
    const found = plain((await examineHealth(document, [])).findings);
    expect(found).toEqual([
      { kind: 'lamps', count: 1, where: ['Beacon'] },
      { kind: 'far', count: 289, where: [] }
    ]);
  });
});
