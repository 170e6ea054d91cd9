/** The objects of a normalised model, as two revisions are compared by them. */
import { createHash } from 'node:crypto';
import type { Mesh } from '@gltf-transform/core';
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
    const place = node
      .getWorldMatrix()
      .map((v) => Math.round(v / SAME_M))
      .join(' ');
    return [{ path, name: node.getName() || mesh.getName(), shape, place }];
  });
}

function shapeOf(mesh: Mesh): string {
  const hash = createHash('sha256');
  for (const primitive of mesh.listPrimitives()) {
    const positions = primitive.getAttribute('POSITION')?.getArray() ?? new Float32Array();
    hash.update(Int32Array.from(positions, (v: number) => Math.round(v / SAME_M)));
    hash.update(Uint32Array.from(primitive.getIndices()?.getArray() ?? []));
    hash.update(primitive.getMaterial()?.getName() ?? '');
  }
  return hash.digest('hex').slice(0, 24);
}
