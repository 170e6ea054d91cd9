/**
 * Objects of equal shape are kept once: meshes that are the same but for where they lie in their own coordinates, as files
 * have them whose objects are all in the world's. What stands often is then placed and takes no further memory.
 */
import type { Document, Mesh, Node, Primitive } from '@gltf-transform/core';

// Smaller meshes are not worth looking at.
const LEAST_TRIANGLES = 100;
/** Of an extent, how far corners may be off. */
const SAME = 2e-5;
const SAME_NORMAL = 0.02;
const SAME_UV = 1e-4;
/** Shapes of one count of corners that are told apart. */
const MOST_SHAPES = 40;

/** How many objects took the mesh of another. */
export function shareMeshes(document: Document): number {
  const shapes = new Map<string, Mesh[]>();
  let shared = 0;
  for (const node of document.getRoot().listNodes()) {
    const mesh = node.getMesh();
    // what hangs from a node would be moved with it
    if (!mesh || node.listChildren().length > 0 || node.getSkin() || trianglesOf(mesh) < LEAST_TRIANGLES) continue;
    const key = mesh
      .listPrimitives()
      .map(
        (p) =>
          `${p.getIndices()?.getCount() ?? 0} ${p.getAttribute('POSITION')?.getCount()} ${p.listSemantics().join()}`
      )
      .join('; ');
    const known = shapes.get(key) ?? [];
    shapes.set(key, known);
    if (known.includes(mesh)) continue;
    const other = known.find((one) => offsetBetween(one, mesh) !== null);
    if (!other) {
      if (known.length < MOST_SHAPES) known.push(mesh);
      continue;
    }
    moveNode(node, offsetBetween(other, mesh)!);
    node.setMesh(other);
    if (!mesh.listParents().some((parent) => parent.propertyType === 'Node')) mesh.dispose();
    shared++;
  }
  return shared;
}

const trianglesOf = (mesh: Mesh): number =>
  mesh
    .listPrimitives()
    .reduce((sum, p) => sum + (p.getIndices()?.getCount() ?? p.getAttribute('POSITION')?.getCount() ?? 0) / 3, 0);

/** What has to be added to the corners of one mesh to have those of another; null when they are not alike. */
function offsetBetween(one: Mesh, other: Mesh): [number, number, number] | null {
  const [a, b] = [one.listPrimitives(), other.listPrimitives()];
  const [from, to] = [firstCorner(a[0]!), firstCorner(b[0]!)];
  const offset: [number, number, number] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  return a.every((primitive, i) => areAlike(primitive, b[i]!, offset)) ? offset : null;
}

const firstCorner = (p: Primitive): [number, number, number] =>
  p.getAttribute('POSITION')!.getElement(0, []) as unknown as [number, number, number];

function areAlike(a: Primitive, b: Primitive, offset: readonly [number, number, number]): boolean {
  if (a.getMaterial() !== b.getMaterial() || a.getMode() !== b.getMode()) return false;
  const [ai, bi] = [a.getIndices()?.getArray(), b.getIndices()?.getArray()];
  if (ai && bi) for (let i = 0; i < ai.length; i++) if (ai[i] !== bi[i]) return false;
  for (const semantic of a.listSemantics()) {
    const [x, y] = [a.getAttribute(semantic)!, b.getAttribute(semantic)];
    if (!y || x.getElementSize() !== y.getElementSize()) return false;
    const [xs, ys] = [x.getArray()!, y.getArray()!];
    if (xs.length !== ys.length) return false;
    if (semantic === 'POSITION') {
      const [low, high] = [x.getMin([]), x.getMax([])];
      // single precision far from the origin is coarser than the shape asks for
      const far = Math.max(...low.map(Math.abs), ...high.map(Math.abs), ...offset.map(Math.abs));
      const most = Math.max(SAME * Math.hypot(...high.map((v, k) => v - low[k]!)), far * 4e-7);
      for (let i = 0; i < xs.length; i++) if (Math.abs(ys[i]! - xs[i]! - offset[i % 3]!) > most) return false;
    } else {
      const most = semantic.startsWith('TEXCOORD') ? SAME_UV : /NORMAL|TANGENT/.test(semantic) ? SAME_NORMAL : 0;
      for (let i = 0; i < xs.length; i++) if (Math.abs(ys[i]! - xs[i]!) > most) return false;
    }
  }
  return true;
}

/** Moves a node by a way in its own coordinates. */
function moveNode(node: Node, [x, y, z]: readonly [number, number, number]): void {
  const m = node.getMatrix();
  const [tx, ty, tz] = node.getTranslation();
  node.setTranslation([
    tx + m[0] * x + m[4] * y + m[8] * z,
    ty + m[1] * x + m[5] * y + m[9] * z,
    tz + m[2] * x + m[6] * y + m[10] * z
  ]);
}
