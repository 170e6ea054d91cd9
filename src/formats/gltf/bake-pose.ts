/**
 * Skinned and morphed meshes as they stand in the file's own pose: morph targets by their stated weights, then each vertex by
 * its joints. Source: glTF 2.0, 3.7.2.2 and 3.7.3.3; a skinned mesh is placed by its joints alone, so what its node adds is
 * taken away again.
 */
import type { Accessor, Document, Mesh, Node, Primitive, Skin } from '@gltf-transform/core';
import type { Vec3 } from '../../core/math/vec3';
import { normalUnder } from '../../core/scene/move-geometry';
import { type Affine, applyAffine, invertAffine, determinant, multiplyAffine } from '../../core/math/affine';

type Element = number[];
const affineOf = (m: readonly number[]): Affine =>
  [0, 1, 2, 4, 5, 6, 8, 9, 10, 12, 13, 14].map((i) => m[i]!) as unknown as Affine;
const MOST_JOINTS_A_VERTEX = 8;

/** How many meshes were bent and how many formed; both count a mesh once for each node that shows it. */
export function bakePose(document: Document): { skinned: number; morphed: number } {
  const done = { skinned: 0, morphed: 0 };
  for (const node of document.getRoot().listNodes()) {
    const mesh = node.getMesh();
    if (!mesh) continue;
    const skin = node.getSkin();
    const weights = node.getWeights().length > 0 ? node.getWeights() : mesh.getWeights();
    const forms = mesh.listPrimitives().some((p) => p.listTargets().length > 0) && weights.some((w) => w !== 0);
    const own = skin || forms ? ownCopy(document, mesh) : mesh;
    if (forms) {
      for (const primitive of own.listPrimitives()) form(document, primitive, weights);
      done.morphed++;
    }
    if (skin && bend(document, own, node, skin)) done.skinned++;
    node.setMesh(own).setSkin(null).setWeights([]);
    own.setWeights([]);
    for (const primitive of own.listPrimitives())
      for (const target of primitive.listTargets()) primitive.removeTarget(target);
  }
  return done;
}

/** A mesh of one node's own, whose places and normals may be changed. */
function ownCopy(document: Document, mesh: Mesh): Mesh {
  const own = document.createMesh(mesh.getName()).setExtras(mesh.getExtras());
  for (const primitive of mesh.listPrimitives()) own.addPrimitive(primitive.clone());
  return own;
}

/** Writes an attribute of a primitive anew, element by element, as floats. */
function rewrite(
  document: Document,
  primitive: Primitive,
  semantic: string,
  change: (element: Element, vertex: number) => void
): void {
  const old = primitive.getAttribute(semantic);
  if (!old) return;
  const size = old.getElementSize();
  const array = new Float32Array(old.getCount() * size);
  const element: Element = [];
  for (let i = 0; i < old.getCount(); i++) {
    old.getElement(i, element);
    change(element, i);
    for (let k = 0; k < size; k++) array[i * size + k] = element[k]!;
  }
  const made = document.createAccessor().setType(old.getType()).setArray(array).setBuffer(old.getBuffer());
  primitive.setAttribute(semantic, made);
}

function form(document: Document, primitive: Primitive, weights: readonly number[]): void {
  const targets = primitive.listTargets();
  for (const semantic of ['POSITION', 'NORMAL', 'TANGENT']) {
    const moved = targets.flatMap((target, k) => {
      const by = target.getAttribute(semantic);
      return by && weights[k] ? [{ by, weight: weights[k]! }] : [];
    });
    if (moved.length === 0) continue;
    const delta: Element = [];
    rewrite(document, primitive, semantic, (element, i) => {
      for (const { by, weight } of moved) {
        by.getElement(i, delta);
        for (let k = 0; k < 3; k++) element[k] = element[k]! + weight * delta[k]!;
      }
      if (semantic !== 'POSITION') toUnit(element);
    });
  }
}

/** False when the skin cannot be applied: no joints, or a node of no extent. */
function bend(document: Document, mesh: Mesh, node: Node, skin: Skin): boolean {
  const place = affineOf(node.getWorldMatrix());
  const joints = skin.listJoints();
  if (joints.length === 0 || Math.abs(determinant(place)) < 1e-18) return false;
  const fromWorld = invertAffine(place);
  const bind = skin.getInverseBindMatrices();
  const at: Element = [];
  const matrices = joints.map((joint, i) => {
    const moved = multiplyAffine(fromWorld, affineOf(joint.getWorldMatrix()));
    if (!bind || i >= bind.getCount()) return moved;
    bind.getElement(i, at);
    return multiplyAffine(moved, affineOf(at));
  });
  for (const primitive of mesh.listPrimitives()) {
    const blends = blendsOf(primitive, matrices);
    if (!blends) continue;
    rewrite(document, primitive, 'POSITION', (element, i) =>
      set(element, applyAffine(blends(i), [element[0]!, element[1]!, element[2]!]))
    );
    rewrite(document, primitive, 'NORMAL', (element, i) => turnNormal(element, blends(i)));
    rewrite(document, primitive, 'TANGENT', (element, i) => turnTangent(element, blends(i)));
    for (let k = 0; k * 4 < MOST_JOINTS_A_VERTEX; k++)
      for (const semantic of [`JOINTS_${k}`, `WEIGHTS_${k}`]) primitive.setAttribute(semantic, null);
  }
  return true;
}

/** The weighted mean of the matrices of a vertex's joints. */
function blendsOf(primitive: Primitive, matrices: readonly Affine[]): ((vertex: number) => Affine) | null {
  const sets: [Accessor, Accessor][] = [];
  for (let k = 0; k * 4 < MOST_JOINTS_A_VERTEX; k++) {
    const [joints, weights] = [primitive.getAttribute(`JOINTS_${k}`), primitive.getAttribute(`WEIGHTS_${k}`)];
    if (joints && weights) sets.push([joints, weights]);
  }
  if (sets.length === 0) return null;
  const [joint, weight]: [Element, Element] = [[], []];
  let [last, blended]: [number, Affine] = [-1, matrices[0]!];
  return (vertex) => {
    if (vertex === last) return blended;
    const sum = new Array<number>(12).fill(0);
    let total = 0;
    for (const [joints, weights] of sets) {
      joints.getElement(vertex, joint);
      weights.getElement(vertex, weight);
      for (let k = 0; k < 4; k++) {
        const matrix = matrices[joint[k]!];
        if (!matrix || !weight[k]) continue;
        total += weight[k]!;
        for (let c = 0; c < 12; c++) sum[c] = sum[c]! + weight[k]! * matrix[c]!;
      }
    }
    last = vertex;
    blended = total > 0 ? (sum.map((c) => c / total) as unknown as Affine) : matrices[0]!;
    return blended;
  };
}

function set(element: Element, [x, y, z]: readonly [number, number, number]): void {
  element[0] = x;
  element[1] = y;
  element[2] = z;
}

function toUnit(element: Element): void {
  const size = Math.hypot(element[0]!, element[1]!, element[2]!) || 1;
  for (let k = 0; k < 3; k++) element[k] = element[k]! / size;
}

function turnNormal(element: Element, m: Affine): void {
  set(element, normalUnder(m)(element as unknown as Vec3));
}

function turnTangent(element: Element, m: Affine): void {
  const [x, y, z] = element as [number, number, number];
  set(element, applyAffine([...m.slice(0, 9), 0, 0, 0] as unknown as Affine, [x, y, z]));
  toUnit(element);
}
