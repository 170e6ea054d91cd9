/** The objects of a normalised model, as two revisions are compared by them. */
import { createHash } from 'node:crypto';
import type { Mesh, Node } from '@gltf-transform/core';
import type { ModelObject } from '../../core/scene/match-objects';
import { createIo } from './io';
import { WRAP_NAME } from './read-scene';

// Metres: what differs by less is the same place and the same corner.
const SAME_M = 1e-4;

export async function listObjects(glb: Uint8Array): Promise<ModelObject[]> {
  const document = await (await createIo()).readBinary(glb);
  const shapes = new Map<Mesh, string>();
  const out: ModelObject[] = [];
  const walk = (node: Node, above: readonly string[]) => {
    const name = node.getName();
    // names that say nothing, and the one that is put around everything, are no part of a path
    const names = name === '' || name === WRAP_NAME || name === above.at(-1) ? above : [...above, name];
    const mesh = node.getMesh();
    if (mesh) {
      const shape = shapes.get(mesh) ?? shapeOf(mesh);
      shapes.set(mesh, shape);
      out.push({
        path: names.join(' / ') || mesh.getName() || 'without a name',
        name: names.at(-1) ?? mesh.getName(),
        shape,
        place: node
          .getWorldMatrix()
          .map((v) => Math.round(v / SAME_M))
          .join(' ')
      });
    }
    for (const child of node.listChildren()) walk(child, names);
  };
  for (const node of document.getRoot().getDefaultScene()?.listChildren() ?? []) walk(node, []);
  return out;
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
