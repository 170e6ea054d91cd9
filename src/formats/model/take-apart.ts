import type { Document, Primitive } from '@gltf-transform/core';

/** Gives each corner of a triangle a vertex of its own. */
export function takeApart(document: Document, primitive: Primitive): void {
  const indices = primitive.getIndices()?.getArray();
  if (!indices) return;
  for (const semantic of primitive.listSemantics()) {
    const old = primitive.getAttribute(semantic)!;
    const from = old.getArray()!;
    const size = old.getElementSize();
    const to = new (from.constructor as Float32ArrayConstructor)(indices.length * size);
    for (let i = 0; i < indices.length; i++)
      for (let k = 0; k < size; k++) to[i * size + k] = from[indices[i]! * size + k]!;
    primitive.setAttribute(
      semantic,
      document
        .createAccessor()
        .setType(old.getType())
        .setNormalized(old.getNormalized())
        .setArray(to)
        .setBuffer(old.getBuffer())
    );
  }
  primitive.setIndices(null);
}
