import { Document } from '@gltf-transform/core';
import { KHRMaterialsVolume } from '@gltf-transform/extensions';
import { describe, expect, it } from 'vitest';
import { repairTriangles } from './repair';

const CUBE = [
  0, 2, 1, 1, 2, 3, 4, 5, 6, 5, 7, 6, 0, 1, 4, 1, 5, 4, 2, 6, 3, 3, 6, 7, 0, 4, 2, 2, 4, 6, 1, 3, 5, 3, 7, 5
];
/** A cube of 1 m whose triangles are given. */
function cube(triangles: number[], glass = false) {
  const document = new Document();
  const buffer = document.createBuffer();
  const corners = Float32Array.from({ length: 24 }, (_, i) => (Math.floor(i / 3) >> (i % 3)) & 1);
  const material = document.createMaterial('clear');
  if (glass)
    material.setExtension(
      'KHR_materials_volume',
      document.createExtension(KHRMaterialsVolume).createVolume().setThicknessFactor(1)
    );
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', document.createAccessor().setType('VEC3').setArray(corners).setBuffer(buffer))
    .setIndices(document.createAccessor().setType('SCALAR').setArray(Uint16Array.from(triangles)).setBuffer(buffer))
    .setMaterial(material);
  document.createMesh('cube').addPrimitive(primitive);
  const [changed, missing]: [string[], string[]] = [[], []];
  repairTriangles(document, changed, missing);
  return { changed, missing, triangles: primitive.getIndices()!.getCount() / 3 };
}

describe('the triangles of a model', () => {
  it('that are sound stay as they are', () => {
    expect(cube(CUBE)).toEqual({ changed: [], missing: [], triangles: 12 });
  });
  it('are taken out where they have no area or lie on another, whichever way they face', () => {
    const found = cube([...CUBE, 0, 0, 1, 1, 2, 0, 0, 2, 1]);
    expect(found.triangles).toBe(12);
    expect(found.changed).toEqual([
      '1 triangle without an area was taken out',
      '2 triangles that lay on another of the same material were taken out'
    ]);
  });
  it('of glass that is no closed body are told with their open edges', () => {
    expect(cube(CUBE, true).missing).toEqual([]);
    // two triangles of one face are missing: its four edges are open
    expect(cube(CUBE.slice(6), true).missing.join()).toMatch(/"clear" is no closed body: 4 of its edges are open/);
    expect(cube(CUBE.slice(6)).missing).toEqual([]);
  });
});
