/**
 * Openings without a pane that a model states: nodes whose extras hold `opening: true`, with a mesh that fills the
 * opening. The mesh is not drawn. Our own convention, as glTF has none; other readers may pass the same on.
 */
import type { Node } from '@gltf-transform/core';
import { cross, normalize, subtract, type Vec3 } from '../../core/math/vec3';
import { type OpenFrame, openingAt } from '../../core/scene/opening';

export const isOpening = (node: Node): boolean => node.getExtras().opening === true;

/** One a primitive, in the world. */
export function readOpenings(node: Node): OpenFrame[] {
  const m = node.getWorldMatrix();
  return (node.getMesh()?.listPrimitives() ?? []).flatMap((primitive) => {
    const position = primitive.getAttribute('POSITION');
    if (!position || position.getCount() < 3) return [];
    const placed = new Float32Array(position.getCount() * 3);
    const p: number[] = [];
    for (let i = 0; i < position.getCount(); i++) {
      position.getElement(i, p);
      for (let k = 0; k < 3; k++)
        placed[i * 3 + k] = m[k]! * p[0]! + m[4 + k]! * p[1]! + m[8 + k]! * p[2]! + m[12 + k]!;
    }
    const indices =
      primitive.getIndices()?.getArray() ?? Uint32Array.from({ length: position.getCount() }, (_, i) => i);
    const at = (i: number): Vec3 => [
      placed[indices[i]! * 3]!,
      placed[indices[i]! * 3 + 1]!,
      placed[indices[i]! * 3 + 2]!
    ];
    const normal = normalize(cross(subtract(at(1), at(0)), subtract(at(2), at(0))));
    if (!normal.every(Number.isFinite)) return [];
    const { middle, width_m, height_m } = openingAt(placed, indices, 0, normal);
    return [{ middle_m: middle, normal, width_m, height_m }];
  });
}
