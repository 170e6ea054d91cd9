/**
 * Slim copies: doubles of heavy objects with a tenth to a fifth of their triangles, for quick looks. What is strewn
 * (leaves, blades, pebbles: many small pieces that do not touch) is thinned: one piece in five stays and grows so that
 * all together cover what they covered (Cook, Halstead, Planck, Ryu 2007, Stochastic Simplification of Aggregate
 * Detail; their change of contrast is left out; of one in ten the blades of a meadow look like reeds). Other surfaces
 * are made coarser, to a tenth, by a reducer that is passed in; where parts of several materials meet their edges stay,
 * so that none opens. What glows stays as it is, lamp by lamp. Cost: some 2 microseconds a triangle.
 */
import type { SceneGeometry, SceneMaterial } from './scene';
import { joinGeometries, takeTriangles } from './triangles';

/** What makes surfaces coarser; formats/reduce-mesh.ts. */
export interface MeshReducer {
  /** For each vertex the first one that lies in the same place. */
  samePlaces(positions: Float32Array): Uint32Array;
  /** Fewer triangles over the same vertices. `keepEdges`: open edges stay where they are. */
  reduce(
    geometry: Pick<SceneGeometry, 'positions' | 'normals' | 'indices'>,
    triangles: number,
    keepEdges: boolean
  ): Uint32Array;
}

/** Of a surface's triangles, that stay. */
const SLIM_SHARE = 0.1;
/** Of strewn pieces one in so many. */
const RUN = 5;
/** Smaller things are not worth it. */
const MIN_TRIANGLES = 200;
// Larger pieces are made coarser, fewer small ones are not thinned: each would be missed.
const LARGEST_STREWN = 256;
const MIN_STREWN = 64;

export function slimCopy(
  geometry: SceneGeometry,
  materials: readonly Pick<SceneMaterial, 'emissive'>[],
  reducer: MeshReducer
): SceneGeometry {
  const all = geometry.triangleMaterials.length;
  if (all < MIN_TRIANGLES) return geometry;
  const glows = (t: number) => materials[geometry.triangleMaterials[t]!]!.emissive.some((c) => c > 0);
  const still: number[] = [];
  const rest: number[] = [];
  for (let t = 0; t < all; t++) (glows(t) ? still : rest).push(t);
  const pieces = piecesOf(geometry, rest, reducer.samePlaces(geometry.positions));
  const small = pieces.filter((p) => p.length <= LARGEST_STREWN);
  const strewn = small.length >= MIN_STREWN ? small : [];
  const solid = (strewn.length > 0 ? pieces.filter((p) => p.length > LARGEST_STREWN) : pieces).flat();
  return joinGeometries([
    ...(still.length > 0 ? [takeTriangles(geometry, still)] : []),
    ...thin(geometry, strewn),
    ...coarsen(geometry, solid, reducer)
  ]);
}

/** Triangles that hang together by their corners. */
function piecesOf(geometry: SceneGeometry, triangles: readonly number[], places: Uint32Array): number[][] {
  const parent = Uint32Array.from({ length: places.length }, (_, i) => i);
  const find = (start: number) => {
    let i = start;
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!;
      i = parent[i]!;
    }
    return i;
  };
  const corner = (t: number, k: number) => places[geometry.indices[t * 3 + k]!]!;
  for (const t of triangles) {
    const root = find(corner(t, 0));
    for (let k = 1; k < 3; k++) parent[find(corner(t, k))] = root;
  }
  const pieces = new Map<number, number[]>();
  for (const t of triangles) {
    const root = find(corner(t, 0));
    const piece = pieces.get(root);
    if (piece) piece.push(t);
    else pieces.set(root, [t]);
  }
  return [...pieces.values()];
}

/**
 * One of each run of pieces, in the order in which they were made, so that no bough loses all its leaves; grown about
 * its middle.
 */
function thin(geometry: SceneGeometry, pieces: readonly number[][]): SceneGeometry[] {
  const out: SceneGeometry[] = [];
  for (let first = 0; first < pieces.length; first += RUN) {
    const count = Math.min(RUN, pieces.length - first);
    const piece = takeTriangles(geometry, pieces[first + (scrambled(first) % count)]!);
    const growth = Math.sqrt(count);
    const middle = [0, 1, 2].map((k) => {
      let sum = 0;
      for (let i = k; i < piece.positions.length; i += 3) sum += piece.positions[i]!;
      return sum / (piece.positions.length / 3);
    });
    out.push({ ...piece, positions: piece.positions.map((v, i) => middle[i % 3]! + (v - middle[i % 3]!) * growth) });
  }
  return out;
}

/** A number that does not go in step with its neighbours' (Knuth's multiplicative hash). */
const scrambled = (i: number) => Math.imul(i + 1, 0x9e3779b1) >>> 16;

function coarsen(geometry: SceneGeometry, triangles: readonly number[], reducer: MeshReducer): SceneGeometry[] {
  const byMaterial = new Map<number, number[]>();
  for (const t of triangles) {
    const material = geometry.triangleMaterials[t]!;
    const known = byMaterial.get(material);
    if (known) known.push(t);
    else byMaterial.set(material, [t]);
  }
  return [...byMaterial.entries()].map(([material, own]) => {
    const piece = takeTriangles(geometry, own);
    const indices = reducer.reduce(piece, Math.max(1, Math.round(own.length * SLIM_SHARE)), byMaterial.size > 1);
    // the vertices that are no longer used go
    const fewer = { ...piece, indices, triangleMaterials: new Uint32Array(indices.length / 3).fill(material) };
    return takeTriangles(
      fewer,
      Uint32Array.from({ length: indices.length / 3 }, (_, i) => i)
    );
  });
}
