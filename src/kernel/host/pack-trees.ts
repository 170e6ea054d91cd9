/**
 * Builds the trees of a scene in its memory: those of a pack, one for each object and then the world's, which holds its
 * own triangles and everything placed; the small one of a rig; and the node that joins both. Regions that the worst
 * case would need are given; the end of what was used comes back.
 */
import { boundsUnder, determinant, invertAffine, stretch, type Affine } from '../../core/math/affine';
import type { Vec3 } from '../../core/math/vec3';
import { boundsOf, type Scene } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import type { KernelExports } from './kernel';
import { buildInParts, LARGE_TREE, type PartBuilder, type PartRegions } from './tree-parts';
import type { Views } from './views';

export interface TreeRegions {
  vertices: number;
  triangles: number;
  /** One byte a triangle, 1 when transparent. */
  flags: number;
  placed: number;
  boxes: number;
  blocks: number;
  nodes: number;
  references: number;
  room: number;
  /** Of large trees, what their parts need; null when there is none. */
  parts: PartRegions | null;
}

export interface Trees {
  root: number;
  nodes: number;
  blocks: number;
  end: number;
}

interface Bounds {
  min: Vec3;
  max: Vec3;
}

/** `firstTriangles`: where each object's triangles begin in the pack. */
export function buildTrees(
  kernel: KernelExports,
  views: Views,
  at: TreeRegions,
  scene: Scene,
  firstTriangles: readonly number[],
  partBuilder: PartBuilder | null
): Trees {
  kernel.beginTrees(at.vertices, at.triangles, at.flags, at.nodes, at.blocks, at.room);
  let large = 0;
  const build = (first: number, triangles: number, boxes: number, placed: number) =>
    (triangles > LARGE_TREE && partBuilder
      ? buildInParts(kernel, views, at, { index: large++, first, triangles, boxes, placed }, partBuilder)
      : kernel.buildTree(first, triangles, boxes, placed, at.references)) >>> 0;
  const objects = scene.objects.map((object, i) => ({
    root: build(firstTriangles[i]!, object.indices.length / 3, 0, 0),
    bounds: boundsOf(object.positions)
  }));
  scene.instances.forEach(({ object, matrix }, i) => {
    place(kernel, views, at, i, matrix, objects[object]!.bounds, {
      kind: L.PLACED_OBJECT,
      root: objects[object]!.root,
      part: i
    });
  });
  const triangles = scene.geometry.indices.length / 3;
  const placed = scene.instances.length;
  let root = triangles + placed > 0 ? build(0, triangles, at.boxes, placed) : 0;
  const nodes = kernel.nodeCount.value as number;
  const blocks = kernel.blockCount.value as number;
  // what the worst case would have needed between blocks and nodes is taken out
  const packed = (at.blocks + blocks * 160 + 255) & ~255;
  const by = at.nodes - packed;
  if (nodes > 0) {
    kernel.moveNodes(at.nodes, nodes * 256, by);
    const moved = (code: number) => (code & 8 ? code : code - by);
    root = moved(root);
    for (let i = 0; i < placed; i++) {
      const o = (at.placed + i * L.PLACED_BYTES + L.PLACED_ROOT) >> 2;
      views.u32[o] = moved(views.u32[o]!);
    }
  }
  return { root, nodes, blocks, end: packed + nodes * 256 };
}

/** Writes the record of the `i`th thing placed, and its reference for the builder. */
export function place(
  kernel: KernelExports,
  { u32, f32 }: Views,
  at: Pick<TreeRegions, 'placed' | 'boxes'>,
  i: number,
  matrix: Affine,
  bounds: Bounds,
  values: { kind: number; root?: number; light?: number; part?: number }
): void {
  const o = at.placed + i * L.PLACED_BYTES;
  const box = boundsUnder(matrix, bounds);
  const reach = Math.max(
    ...box.min.map(Math.abs),
    ...box.max.map(Math.abs),
    ...matrix.slice(9).map(Math.abs),
    stretch(matrix) * Math.max(...bounds.min.map(Math.abs), ...bounds.max.map(Math.abs))
  );
  u32.set([values.kind, values.root ?? 0, values.light ?? 0, determinant(matrix) < 0 ? 1 : 0], o >> 2);
  f32[(o + L.PLACED_REACH) >> 2] = reach;
  u32[(o + L.PLACED_PART) >> 2] = values.part ?? L.NO_NODE;
  f32.set(matrix, (o + L.PLACED_MATRIX) >> 2);
  f32.set(invertAffine(matrix), (o + L.PLACED_INVERSE) >> 2);
  // a little wider, because the kernel goes there in single precision
  const wide = 4e-6 * reach;
  const [low, high] = [box.min.map((v) => v - wide), box.max.map((v) => v + wide)] as [number[], number[]];
  kernel.placeBox(at.boxes + i * 32, o, low[0]!, low[1]!, low[2]!, high[0]!, high[1]!, high[2]!);
}

/**
 * Writes a node over two trees (see traverse.ts) and returns its code. The second is what shadow rays look into first.
 */
export function joinTrees(
  { f32, u32 }: Views,
  at: number,
  trees: readonly [{ root: number; bounds: Bounds }, { root: number; bounds: Bounds }]
): number {
  for (let child = 0; child < 8; child++) {
    const tree = trees[child];
    for (let axis = 0; axis < 3; axis++) {
      f32[(at >> 2) + axis * 16 + child] = tree ? tree.bounds.min[axis]! : 1e30;
      f32[(at >> 2) + axis * 16 + 8 + child] = tree ? tree.bounds.max[axis]! : 1e30;
    }
    u32[(at >> 2) + 48 + child] = tree ? tree.root : 8;
  }
  return at;
}
