/**
 * The pieces of a model as the scene holds them: what stands once becomes part of the world's triangles, what stands
 * often is kept once in its own coordinates and placed. Placing costs a ray a change of coordinates, so it has to spare
 * triangles worth the name.
 */
import type { Primitive } from '@gltf-transform/core';
import { type Affine, determinant } from '../../core/math/affine';
import { mayBePlaced } from '../../core/scene/place-models';
import type { Scene, SceneGeometry, SceneMaterial } from '../../core/scene/scene';

export interface Piece {
  name: string;
  /** Of its node in the model's tree. */
  path: string;
  primitive: Primitive;
  /** Its node's matrix to the world, 16 numbers by columns. */
  matrix: readonly number[];
  material: number;
}

// Triangles that placing has to spare.
const WORTH_PLACING = 20_000;
const UNMOVED = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

export function placePieces(
  pieces: readonly Piece[],
  materials: readonly SceneMaterial[]
): Pick<Scene, 'geometry' | 'parts' | 'objects' | 'instances'> {
  const groups = new Map<string, Piece[]>();
  const ids = new Map<Primitive, number>();
  for (const piece of pieces) {
    if (!ids.has(piece.primitive)) ids.set(piece.primitive, ids.size);
    const key = `${ids.get(piece.primitive)} ${piece.material}`;
    groups.set(key, [...(groups.get(key) ?? []), piece]);
  }
  const placed = [...groups.values()].filter(
    (g) =>
      (g.length - 1) * triangleCount(g[0]!.primitive) >= WORTH_PLACING &&
      mayBePlaced(materials[g[0]!.material]!) &&
      g.every((p) => !isFlat(p.matrix))
  );
  const apart = new Set(placed.flat());
  const world = pieces.filter((p) => !apart.has(p));
  let first = 0;
  const parts = world.map((p) => {
    const part = { name: p.name, path: p.path, first, matrix: affineOf(p.matrix) };
    first += triangleCount(p.primitive);
    return part;
  });
  return {
    geometry: joinPieces(world),
    parts,
    objects: placed.map(([one]) => joinPieces([{ ...one!, matrix: UNMOVED }])),
    instances: placed.flatMap((group, object) =>
      group.map((p) => ({ object, matrix: affineOf(p.matrix), name: p.name, path: p.path }))
    )
  };
}

const affineOf = (m: readonly number[]): Affine => [
  m[0]!,
  m[1]!,
  m[2]!,
  m[4]!,
  m[5]!,
  m[6]!,
  m[8]!,
  m[9]!,
  m[10]!,
  m[12]!,
  m[13]!,
  m[14]!
];

const isFlat = (m: readonly number[]) => Math.abs(determinant(affineOf(m))) < 1e-18;

const triangleCount = (p: Primitive) =>
  Math.floor((p.getIndices()?.getCount() ?? p.getAttribute('POSITION')!.getCount()) / 3);

function joinPieces(pieces: readonly Piece[]): SceneGeometry {
  let vertices = 0;
  let indexCount = 0;
  for (const { primitive } of pieces) {
    vertices += primitive.getAttribute('POSITION')!.getCount();
    indexCount += primitive.getIndices()?.getCount() ?? primitive.getAttribute('POSITION')!.getCount();
  }
  const g: SceneGeometry = {
    positions: new Float32Array(vertices * 3),
    normals: new Float32Array(vertices * 3),
    tangents: new Float32Array(vertices * 4),
    uv0: new Float32Array(vertices * 2),
    uv1: new Float32Array(vertices * 2),
    colors: new Uint16Array(vertices * 4).fill(65_535),
    indices: new Uint32Array(indexCount),
    triangleMaterials: new Uint32Array(indexCount / 3)
  };
  let firstVertex = 0;
  let firstIndex = 0;
  for (const { primitive, matrix, material } of pieces) {
    const position = primitive.getAttribute('POSITION')!;
    const normal = primitive.getAttribute('NORMAL');
    const tangent = primitive.getAttribute('TANGENT');
    const uv = [primitive.getAttribute('TEXCOORD_0'), primitive.getAttribute('TEXCOORD_1')];
    const color = primitive.getAttribute('COLOR_0');
    const count = position.getCount();
    const m = matrix;
    // normals go by the inverse transpose: the cofactors, whose sign also tells a mirrored node
    const cof = [
      m[5]! * m[10]! - m[6]! * m[9]!,
      m[6]! * m[8]! - m[4]! * m[10]!,
      m[4]! * m[9]! - m[5]! * m[8]!,
      m[2]! * m[9]! - m[1]! * m[10]!,
      m[0]! * m[10]! - m[2]! * m[8]!,
      m[1]! * m[8]! - m[0]! * m[9]!,
      m[1]! * m[6]! - m[2]! * m[5]!,
      m[2]! * m[4]! - m[0]! * m[6]!,
      m[0]! * m[5]! - m[1]! * m[4]!
    ];
    const determinant = m[0]! * cof[0]! + m[4]! * cof[3]! + m[8]! * cof[6]!;
    const mirrored = determinant < 0;
    const el: number[] = [];
    for (let i = 0; i < count; i++) {
      const v = firstVertex + i;
      position.getElement(i, el);
      for (let k = 0; k < 3; k++)
        g.positions[v * 3 + k] = m[k]! * el[0]! + m[4 + k]! * el[1]! + m[8 + k]! * el[2]! + m[12 + k]!;
      if (normal) {
        normal.getElement(i, el);
        const n = [0, 1, 2].map((k) => cof[k]! * el[0]! + cof[3 + k]! * el[1]! + cof[6 + k]! * el[2]!);
        const size = (Math.hypot(n[0]!, n[1]!, n[2]!) || 1) * (mirrored ? -1 : 1);
        for (let k = 0; k < 3; k++) g.normals[v * 3 + k] = n[k]! / size;
      }
      if (tangent) {
        tangent.getElement(i, el);
        const t = [0, 1, 2].map((k) => m[k]! * el[0]! + m[4 + k]! * el[1]! + m[8 + k]! * el[2]!);
        const size = Math.hypot(t[0]!, t[1]!, t[2]!) || 1;
        for (let k = 0; k < 3; k++) g.tangents[v * 4 + k] = t[k]! / size;
        g.tangents[v * 4 + 3] = mirrored ? -el[3]! : el[3]!;
      }
      for (const [set, accessor] of uv.entries()) {
        if (!accessor) continue;
        accessor.getElement(i, el);
        const target = set === 0 ? g.uv0 : g.uv1;
        target[v * 2] = el[0]!;
        target[v * 2 + 1] = el[1]!;
      }
      if (color) {
        color.getElement(i, el);
        for (let k = 0; k < color.getElementSize(); k++)
          g.colors[v * 4 + k] = Math.round(65_535 * Math.min(1, Math.max(0, el[k]!)));
      }
    }
    const indices = primitive.getIndices();
    const n = indices?.getCount() ?? count;
    for (let i = 0; i < n; i += 3) {
      const at = (k: number) => firstVertex + (indices ? indices.getScalar(i + k) : i + k);
      g.indices[firstIndex + i] = at(0);
      g.indices[firstIndex + i + 1] = at(mirrored ? 2 : 1);
      g.indices[firstIndex + i + 2] = at(mirrored ? 1 : 2);
      g.triangleMaterials[(firstIndex + i) / 3] = material;
    }
    firstVertex += count;
    firstIndex += n;
  }
  return g;
}
