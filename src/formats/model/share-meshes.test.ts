import { Document, type Node } from '@gltf-transform/core';
import { describe, expect, it } from 'vitest';
import { shareMeshes } from './share-meshes';

const SIDE = 12;
/** A wavy sheet whose corners lie at `at` in its own coordinates; `bump` lifts one corner. */
function sheet(document: Document, name: string, at: [number, number, number], bump = 0): Node {
  const positions: number[] = [];
  const indices: number[] = [];
  for (let j = 0; j <= SIDE; j++)
    for (let i = 0; i <= SIDE; i++) {
      const lift = Math.sin(i) * Math.cos(j) * 0.1 + (i === 3 && j === 3 ? bump : 0);
      positions.push(at[0] + i / SIDE, at[1] + lift, at[2] + j / SIDE);
      if (i < SIDE && j < SIDE) {
        const a = j * (SIDE + 1) + i;
        indices.push(a, a + SIDE + 1, a + 1, a + 1, a + SIDE + 1, a + SIDE + 2);
      }
    }
  const root = document.getRoot();
  const buffer = root.listBuffers()[0] ?? document.createBuffer();
  const primitive = document
    .createPrimitive()
    .setAttribute(
      'POSITION',
      document.createAccessor().setType('VEC3').setArray(Float32Array.from(positions)).setBuffer(buffer)
    )
    .setIndices(document.createAccessor().setType('SCALAR').setArray(Uint16Array.from(indices)).setBuffer(buffer));
  const node = document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive));
  (root.getDefaultScene() ?? document.createScene()).addChild(node);
  if (!root.getDefaultScene()) root.setDefaultScene(root.listScenes()[0]!);
  return node;
}
/** Where a corner of a node's mesh is in the world. */
function corner(node: Node, vertex: number): number[] {
  const [x, y, z] = node
    .getMesh()!
    .listPrimitives()[0]!
    .getAttribute('POSITION')!
    .getElement(vertex, []) as unknown as [number, number, number];
  const m = node.getWorldMatrix();
  return [0, 1, 2].map((k) => Math.round((m[k]! * x + m[4 + k]! * y + m[8 + k]! * z + m[12 + k]!) * 1e4) / 1e4 + 0);
}

describe('objects of equal shape', () => {
  it('are kept once wherever they lie, and stay where they were', () => {
    const document = new Document();
    const nodes = [
      sheet(document, 'a', [0, 0, 0]),
      sheet(document, 'b', [250.3, 7, -4]),
      sheet(document, 'c', [3, 0, 0]).setRotation([0, Math.SQRT1_2, 0, Math.SQRT1_2]).setScale([2, 2, 2])
    ];
    const before = nodes.map((node) => [corner(node, 0), corner(node, 30)]);
    expect(shareMeshes(document)).toBe(2);
    expect(document.getRoot().listMeshes().length).toBe(1);
    expect(nodes.map((node) => [corner(node, 0), corner(node, 30)])).toEqual(before);
  });
  it('are told apart by one corner, by their material, and where something hangs from them', () => {
    const document = new Document();
    sheet(document, 'a', [0, 0, 0]);
    sheet(document, 'dented', [2, 0, 0], 0.01);
    const red = sheet(document, 'red', [4, 0, 0]);
    red.getMesh()!.listPrimitives()[0]!.setMaterial(document.createMaterial('red'));
    sheet(document, 'parent', [6, 0, 0]).addChild(document.createNode('child'));
    expect(shareMeshes(document)).toBe(0);
  });
});
