/**
 * Builds the trees of a scene in a pack's memory: one for each object, then the world's, which holds its own triangles and everything
 * placed. Regions that the worst case would need are given; the end of what was used comes back.
 */
import { boundsUnder, determinant, invertAffine, stretch, type Affine } from '../../core/math/affine';
import type { Vec3 } from '../../core/math/vec3';
import { boundsOf, type Scene } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import type { KernelExports } from './kernel';
import { isShape, type Lamp, SHAPE_KINDS, shapeMatrix } from './pack-lights';
import type { Views } from './views';

export interface TreeRegions {
  vertices: number;
  indices: number;
  lights: number;
  /** One byte a triangle, 1 when sheer. */
  flags: number;
  placed: number;
  boxes: number;
  blocks: number;
  nodes: number;
  references: number;
  room: number;
}

export interface Trees {
  root: number;
  nodes: number;
  blocks: number;
  end: number;
}

export const countPlaced = (scene: Scene) => scene.instances.length + scene.lights.filter(isShape).length;

/** `firstTriangles`: where each object's triangles begin in the pack. `firstPart`: of the placed objects' parts. `lampIndex`: the light of a lamp. */
export function buildTrees(kernel: KernelExports, views: Views, at: TreeRegions, scene: Scene, firstTriangles: readonly number[], firstPart: number, lampIndex: (lamp: Lamp) => number): Trees {
  kernel.beginTrees(at.vertices, at.indices, at.flags, at.nodes, at.blocks, at.room);
  const objects = scene.objects.map((object, i) => ({
    root: kernel.buildTree(firstTriangles[i]!, object.indices.length / 3, 0, 0, at.references) >>> 0,
    bounds: boundsOf(object.positions)
  }));
  let count = 0;
  const place = (matrix: Affine, bounds: { min: Vec3; max: Vec3 }, values: { kind: number; root?: number; light?: number; part?: number }) => {
    const o = at.placed + count * L.PLACED_BYTES;
    const box = boundsUnder(matrix, bounds);
    const reach = Math.max(...box.min.map(Math.abs), ...box.max.map(Math.abs), ...matrix.slice(9).map(Math.abs), stretch(matrix) * Math.max(...bounds.min.map(Math.abs), ...bounds.max.map(Math.abs)));
    views.u32.set([values.kind, values.root ?? 0, values.light ?? 0, determinant(matrix) < 0 ? 1 : 0], o >> 2);
    views.f32[(o + L.PLACED_REACH) >> 2] = reach;
    views.u32[(o + L.PLACED_PART) >> 2] = values.part ?? L.NO_NODE;
    views.f32.set(matrix, (o + L.PLACED_MATRIX) >> 2);
    views.f32.set(invertAffine(matrix), (o + L.PLACED_INVERSE) >> 2);
    // a little wider, because the kernel goes there in single precision
    const wide = 4e-6 * reach;
    const [low, high] = [box.min.map((v) => v - wide), box.max.map((v) => v + wide)] as [number[], number[]];
    kernel.placeBox(at.boxes + count * 32, o, low[0]!, low[1]!, low[2]!, high[0]!, high[1]!, high[2]!);
    count++;
  };
  scene.instances.forEach(({ object, matrix }, i) => {
    place(matrix, objects[object]!.bounds, { kind: L.PLACED_OBJECT, root: objects[object]!.root, part: firstPart + i });
  });
  for (const lamp of scene.lights.filter(isShape)) {
    views.u32[(at.lights + lampIndex(lamp) * L.LIGHT_BYTES + L.L_PLACED) >> 2] = at.placed + count * L.PLACED_BYTES;
    const flat = lamp.kind === 'sphere' ? 1 : 0;
    place(shapeMatrix(lamp), { min: [-1, -1, -flat], max: [1, 1, flat] }, { kind: SHAPE_KINDS[lamp.kind], light: lampIndex(lamp) });
  }
  const triangles = scene.geometry.indices.length / 3;
  let root = triangles + count > 0 ? kernel.buildTree(0, triangles, at.boxes, count, at.references) >>> 0 : 0;
  const nodes = kernel.nodeCount.value as number;
  const blocks = kernel.blockCount.value as number;
  // what the worst case would have needed between blocks and nodes is taken out
  const packed = (at.blocks + blocks * 160 + 255) & ~255;
  const by = at.nodes - packed;
  if (nodes > 0) {
    kernel.moveNodes(at.nodes, nodes * 256, by);
    const moved = (code: number) => (code & 8 ? code : code - by);
    root = moved(root);
    for (let i = 0; i < scene.instances.length; i++) {
      const o = (at.placed + i * L.PLACED_BYTES + L.PLACED_ROOT) >> 2;
      views.u32[o] = moved(views.u32[o]!);
    }
  }
  return { root, nodes, blocks, end: packed + nodes * 256 };
}
