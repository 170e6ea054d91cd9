/**
 * Curves of a model: lines that a picture shows on request, with a width (core/scene/draw-curves.ts). They are taken out
 * while surfaces are looked at and completed, and put back as segments when the model is written.
 */
import type { Document, Material, Mesh, Node, Primitive } from '@gltf-transform/core';

/** glTF's modes of lines (3.7.2.1). */
const LINES = 1;
const LINE_LOOP = 2;
const LINE_STRIP = 3;

interface Curve {
  node: Node;
  /** Six numbers a segment. */
  segments: Float32Array;
  material: Material | null;
}

export class Curves {
  private readonly curves: Curve[] = [];
  private attached: { node: Node; child: Node | null; mesh: Mesh }[] = [];

  /** Takes them out of the document. */
  constructor(private readonly document: Document) {
    const spent = new Set<Primitive>();
    for (const node of document.getRoot().listNodes())
      for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
        const mode = primitive.getMode();
        if (mode !== LINES && mode !== LINE_LOOP && mode !== LINE_STRIP) continue;
        const segments = segmentsOf(primitive);
        spent.add(primitive);
        if (segments.length > 0) this.curves.push({ node, segments, material: primitive.getMaterial() });
      }
    for (const primitive of spent) primitive.dispose();
    for (const node of document.getRoot().listNodes())
      if (node.getMesh()?.listPrimitives().length === 0) node.setMesh(null);
  }

  get segments(): number {
    return this.curves.reduce((sum, { segments }) => sum + segments.length / 6, 0);
  }

  attach(): void {
    const { document } = this;
    const buffer = document.getRoot().listBuffers()[0] ?? document.createBuffer();
    this.attached = this.curves.map(({ node, segments, material }) => {
      const position = document.createAccessor().setType('VEC3').setArray(segments).setBuffer(buffer);
      const primitive = document
        .createPrimitive()
        .setMode(LINES)
        .setAttribute('POSITION', position)
        .setMaterial(material);
      const mesh = document.createMesh(`${node.getName()} curves`).addPrimitive(primitive);
      if (!node.getMesh()) {
        node.setMesh(mesh);
        return { node, child: null, mesh };
      }
      const child = document.createNode(`${node.getName()} curves`).setMesh(mesh);
      node.addChild(child);
      return { node, child, mesh };
    });
  }

  detach(): void {
    for (const { node, child, mesh } of this.attached) {
      if (child) child.dispose();
      else node.setMesh(null);
      for (const primitive of mesh.listPrimitives()) {
        primitive.getAttribute('POSITION')?.dispose();
        primitive.dispose();
      }
      mesh.dispose();
    }
    this.attached = [];
  }
}

function segmentsOf(primitive: Primitive): Float32Array {
  const position = primitive.getAttribute('POSITION');
  if (position?.getElementSize() !== 3) return new Float32Array();
  const indices = primitive.getIndices();
  const count = indices?.getCount() ?? position.getCount();
  const at = (i: number) => indices?.getScalar(i) ?? i;
  const out: number[] = [];
  const put = (a: number, b: number) => out.push(...position.getElement(at(a), []), ...position.getElement(at(b), []));
  const mode = primitive.getMode();
  for (let i = 0; i + 1 < count; i += mode === LINES ? 2 : 1) put(i, i + 1);
  if (mode === LINE_LOOP && count > 2) put(count - 1, 0);
  return Float32Array.from(out);
}
