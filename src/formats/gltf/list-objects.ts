/** The objects of a normalised model, as two revisions are compared by them. */
import { createHash } from 'node:crypto';
import type { Mesh, Node } from '@gltf-transform/core';
import type { ModelObject } from '../../core/scene/match-objects';
import { createIo } from './io';
import { pathsOf } from './node-paths';

// Metres: what differs by less is the same place and the same corner.
const SAME_M = 1e-4;

export async function listObjects(glb: Uint8Array): Promise<ModelObject[]> {
  const document = await (await createIo()).readBinary(glb);
  const shapes = new Map<Mesh, string>();
  return [...pathsOf(document)].flatMap(([node, path]) => {
    const mesh = node.getMesh();
    if (!mesh) return [];
    const shape = shapes.get(mesh) ?? shapeOf(mesh);
    shapes.set(mesh, shape);
    const place = placeOf(node, mesh);
    return [{ path, name: node.getName() || mesh.getName(), shape, place }];
  });
}

/** Its first corner and its axes in the world: the same whether the node or its mesh holds where it is. */
function placeOf(node: Node, mesh: Mesh): string {
  const m = node.getWorldMatrix();
  const [x = 0, y = 0, z = 0] = firstCorner(mesh);
  const at = [0, 1, 2].map((k) => m[k]! * x + m[4 + k]! * y + m[8 + k]! * z + m[12 + k]!);
  return [...m.slice(0, 12), ...at].map((v) => Math.round(v / SAME_M)).join(' ');
}

const firstCorner = (mesh: Mesh): number[] =>
  mesh.listPrimitives()[0]?.getAttribute('POSITION')?.getElement(0, []) ?? [];

function shapeOf(mesh: Mesh): string {
  const hash = createHash('sha256');
  const first = firstCorner(mesh);
  for (const primitive of mesh.listPrimitives()) {
    const positions = primitive.getAttribute('POSITION')?.getArray() ?? new Float32Array();
    hash.update(Int32Array.from(positions, (v: number, i: number) => Math.round((v - first[i % 3]!) / SAME_M)));
    hash.update(Uint32Array.from(primitive.getIndices()?.getArray() ?? []));
    hash.update(primitive.getMaterial()?.getName() ?? '');
  }
  return hash.digest('hex').slice(0, 24);
}
