/** Parts of a geometry taken out and put together. Vertices keep all that they carry. */
import type { SceneGeometry } from './scene';

/** How many numbers a vertex has of each. */
const PER_VERTEX = { positions: 3, normals: 3, tangents: 4, uv0: 2, uv1: 2, colors: 4 } as const;
const KEYS = Object.keys(PER_VERTEX) as (keyof typeof PER_VERTEX)[];

/** Of the triangles listed, in that order, with just the vertices that they have. */
export function takeTriangles(geometry: SceneGeometry, triangles: ArrayLike<number>): SceneGeometry {
  const names = new Int32Array(geometry.positions.length / 3).fill(-1);
  const from: number[] = [];
  const indices = new Uint32Array(triangles.length * 3);
  for (let t = 0; t < triangles.length; t++) {
    for (let k = 0; k < 3; k++) {
      const vertex = geometry.indices[triangles[t]! * 3 + k]!;
      if (names[vertex]! < 0) names[vertex] = from.push(vertex) - 1;
      indices[t * 3 + k] = names[vertex]!;
    }
  }
  const out = emptyOf(from.length);
  for (const key of KEYS) {
    const n = PER_VERTEX[key];
    for (let i = 0; i < from.length; i++)
      for (let k = 0; k < n; k++) out[key][i * n + k] = geometry[key][from[i]! * n + k]!;
  }
  return { ...out, indices, triangleMaterials: Uint32Array.from(triangles, (t) => geometry.triangleMaterials[t]!) };
}

export function joinGeometries(pieces: readonly SceneGeometry[]): SceneGeometry {
  const vertices = pieces.reduce((sum, p) => sum + p.positions.length / 3, 0);
  const triangles = pieces.reduce((sum, p) => sum + p.triangleMaterials.length, 0);
  const out: SceneGeometry = {
    ...emptyOf(vertices),
    indices: new Uint32Array(triangles * 3),
    triangleMaterials: new Uint32Array(triangles)
  };
  let [vertex, triangle] = [0, 0];
  for (const piece of pieces) {
    for (const key of KEYS) out[key].set(piece[key], vertex * PER_VERTEX[key]);
    for (let i = 0; i < piece.indices.length; i++) out.indices[triangle * 3 + i] = piece.indices[i]! + vertex;
    out.triangleMaterials.set(piece.triangleMaterials, triangle);
    vertex += piece.positions.length / 3;
    triangle += piece.triangleMaterials.length;
  }
  return out;
}

/** Of surfaces without texture coordinates and tints. */
export function plainGeometry(surfaces: {
  /** xyz a vertex, m. */
  positions: readonly number[];
  normals: readonly number[];
  indices: readonly number[];
  /** Index of the material of each triangle; 0 where nothing is said. */
  triangleMaterials?: readonly number[];
}): SceneGeometry {
  const { positions, normals, indices } = surfaces;
  return {
    ...emptyOf(positions.length / 3),
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    colors: new Uint16Array((positions.length / 3) * 4).fill(65_535),
    indices: Uint32Array.from(indices),
    triangleMaterials: surfaces.triangleMaterials
      ? Uint32Array.from(surfaces.triangleMaterials)
      : new Uint32Array(indices.length / 3)
  };
}

const emptyOf = (vertices: number) => ({
  positions: new Float32Array(vertices * 3),
  normals: new Float32Array(vertices * 3),
  tangents: new Float32Array(vertices * 4),
  uv0: new Float32Array(vertices * 2),
  uv1: new Float32Array(vertices * 2),
  colors: new Uint16Array(vertices * 4)
});
