import { Document } from '@gltf-transform/core';
import { describe, expect, it } from 'vitest';
import { bakePose } from './bake-pose';
import { normaliseModel } from '../model/normalise';
import { readScene } from './read-scene';

/** A triangle in the plane z = 0, on a node that stands at -1, -1. */
function model() {
  const document = new Document();
  const buffer = document.createBuffer();
  const accessor = (type: 'VEC3' | 'VEC4' | 'MAT4', array: Float32Array | Uint8Array) =>
    document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  const triangle = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0)))
    .setAttribute('NORMAL', accessor('VEC3', Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1)))
    .setMaterial(document.createMaterial('card'));
  const mesh = document.createMesh('card').addPrimitive(triangle);
  const node = document.createNode('card').setMesh(mesh).setTranslation([-1, -1, 0]);
  const scene = document.createScene().addChild(node);
  document.getRoot().setDefaultScene(scene);
  return { document, accessor, triangle, mesh, node, scene };
}

async function places(document: Document): Promise<number[][]> {
  const { glb, report } = await normaliseModel(
    { document, format: 'glTF', source: 'card.glb', changed: [], missing: [] },
    { unit: 'm', up: 'y' }
  );
  expect(report.missing).toEqual([]);
  const { positions } = (await readScene(glb)).geometry;
  return Array.from({ length: positions.length / 3 }, (_, v) =>
    [...positions.slice(v * 3, v * 3 + 3)].map((x) => Math.round(x * 1e5) / 1e5 + 0)
  );
}

describe('the pose of a file (glTF 2.0, 3.7)', () => {
  it('puts a skinned mesh where its joints are, whatever its own node says', async () => {
    const { document, accessor, triangle, node, scene } = model();
    const still = document.createNode('still');
    // a quarter turn about z and 2 up
    const turned = document
      .createNode('turned')
      .setRotation([0, 0, Math.SQRT1_2, Math.SQRT1_2])
      .setTranslation([0, 2, 0]);
    scene.addChild(still).addChild(turned);
    const none = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
    const skin = document
      .createSkin()
      .addJoint(still)
      .addJoint(turned)
      .setInverseBindMatrices(accessor('MAT4', Float32Array.of(...none, ...none)));
    triangle
      .setAttribute('JOINTS_0', accessor('VEC4', Uint8Array.of(0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0)))
      .setAttribute('WEIGHTS_0', accessor('VEC4', Float32Array.of(1, 0, 0, 0, 1, 0, 0, 0, 0.5, 0.5, 0, 0)));
    node.setSkin(skin);
    // the third is half at (0, 1), half at (-1, 2)
    expect(await places(document)).toEqual([
      [0, 0, 0],
      [0, 3, 0],
      [-0.5, 1.5, 0]
    ]);
  });

  it('forms a mesh by the weights of its node, or of itself, and keeps another node that shows the mesh', async () => {
    const { document, accessor, triangle, mesh, node, scene } = model();
    const raised = document
      .createPrimitiveTarget()
      .setAttribute('POSITION', accessor('VEC3', Float32Array.of(0, 0, 0, 0, 0, 2, 0, 0, 0)));
    triangle.addTarget(raised);
    mesh.setWeights([0.5]);
    scene.addChild(document.createNode('other').setMesh(mesh).setWeights([1]).setTranslation([5, 0, 0]));
    node.setTranslation([0, 0, 0]);
    expect(bakePose(document)).toEqual({ skinned: 0, morphed: 2 });
    expect(await places(document)).toEqual([
      [0, 0, 0],
      [1, 0, 1],
      [0, 1, 0],
      [5, 0, 0],
      [6, 0, 2],
      [5, 1, 0]
    ]);
  });
});
