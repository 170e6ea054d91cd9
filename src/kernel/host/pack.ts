/**
 * Compiles a model to a scene pack: the bytes that lie at PACK in the kernel's memory (layout: assembly/layout.ts):
 * triangles, their trees, textures. Materials and lights are the rig's (rig.ts), so a pack serves for every light. The
 * same model gives the same bytes on the same compile; others fetch the pack instead of compiling anew.
 */
import { countTriangles, type Scene, type SceneGeometry, sceneBounds } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import { createMemory, instantiate, MAX_BYTES } from './kernel';
import { buildMipLevels } from './mip-levels';
import { flagsOf } from './pack-materials';
import { buildTrees } from './pack-trees';
import { ALONE, type Helpers, LARGE_TREE, PART_SLACK_BYTES, ROOM_BYTES, takeParts } from './tree-parts';
import { type Views, viewsOf } from './views';

export interface ScenePack {
  bytes: Uint8Array;
  /** As drawn: each object as often as it stands. */
  triangles: number;
  nodes: number;
  buildSeconds: number;
}

export const align = (n: number) => (n + 255) & ~255;

/** Hands out regions of memory from `top` on, one after another. */
export class Regions {
  constructor(public top: number) {}
  take(bytes: number): number {
    const at = align(this.top);
    this.top = at + bytes;
    return at;
  }
}

/** `help`: starts threads that build parts of large trees beside this one; the bytes are the same without. */
export function buildPack(
  scene: Scene,
  module: WebAssembly.Module,
  now: () => number,
  help: Helpers = ALONE
): ScenePack {
  const geometries = [scene.geometry, ...scene.objects];
  const firstVertex = startsOf(geometries, (g) => g.positions.length / 3);
  const firstTriangle = startsOf(geometries, (g) => g.indices.length / 3);
  const vertices = firstVertex.at(-1)!;
  const triangles = firstTriangle.at(-1)!;
  const placed = scene.instances.length;
  const mips = scene.textures.map(buildMipLevels);

  const regions = new Regions(L.PACK + L.PACK_HEADER_BYTES);
  const take = (bytes: number) => regions.take(bytes);
  const at = {
    vertices: take(vertices * L.VERTEX_BYTES + 16),
    triangles: take(triangles * L.TRIANGLE_BYTES),
    textures: take(Math.max(1, scene.textures.length) * L.TEXTURE_BYTES),
    placed: take(placed * L.PLACED_BYTES),
    mips: mips.map((levels) => levels.map((level) => take(level.pixels.length)))
  };
  const largeTrees = geometries.filter((g) => g.indices.length / 3 > LARGE_TREE).length;
  // the worst case of blocks and nodes; what is not used is never touched, and cut off at the end
  const blocks = take(triangles * 160 + 256);
  const nodes = take((triangles + placed * 2) * 128 + PART_SLACK_BYTES);
  const trees = {
    vertices: at.vertices,
    triangles: at.triangles,
    placed: at.placed,
    blocks,
    nodes,
    references: take(
      Math.max(placed + scene.geometry.indices.length / 3, ...scene.objects.map((o) => o.indices.length / 3)) * 32 + 64
    ),
    boxes: take(placed * 32),
    flags: take(triangles),
    room: take(ROOM_BYTES),
    parts: largeTrees > 0 ? takeParts(take, help.threads, largeTrees) : null
  };
  if (regions.top > MAX_BYTES)
    throw new RangeError(
      `buildPack: expected a scene below 4 GiB, got ${(regions.top / 2 ** 30).toFixed(1)} GiB for ${triangles} triangles`
    );
  const memory = createMemory(regions.top + 65_536);
  const views = viewsOf(memory);
  const { bytes, f32, u32 } = views;

  for (const [g, geometry] of geometries.entries())
    writeGeometry(views, geometry, firstVertex[g]!, firstTriangle[g]!, at);
  scene.textures.forEach((texture, t) => {
    const o = (at.textures + t * L.TEXTURE_BYTES) >> 2;
    const levels = mips[t]!;
    u32.set([texture.width, texture.height, levels.length, texture.encoded ? 1 : 0], o);
    levels.forEach((level, i) => {
      u32[o + L.T_LEVELS / 4 + i] = at.mips[t]![i]!;
      bytes.set(level.pixels, at.mips[t]![i]!);
    });
    f32[o + L.T_LOG_TEXELS / 4] = 0.5 * Math.log2(texture.width * texture.height);
  });

  const began = now();
  const transparent = scene.materials.map((m) => (flagsOf(m) & L.FLAG_TRANSPARENT ? 1 : 0));
  for (let t = 0; t < triangles; t++)
    bytes[trees.flags + t] = transparent[u32[(at.triangles + t * L.TRIANGLE_BYTES + L.TRIANGLE_MATERIAL) >> 2]!]!;
  const built = buildTrees(instantiate(module, memory, 0), views, trees, scene, firstTriangle.slice(1), {
    module,
    memory,
    help
  });
  const buildSeconds = (now() - began) / 1000;

  const bounds = sceneBounds(scene);
  const header = L.PACK >> 2;
  const values: [number, number][] = [
    [L.P_MAGIC, L.PACK_MAGIC],
    [L.P_VERSION, L.PACK_VERSION],
    [L.P_ROOT, built.root],
    [L.P_TRIANGLES, triangles],
    [L.P_VERTICES_PTR, at.vertices],
    [L.P_TRIANGLES_PTR, at.triangles],
    [L.P_TEXTURES_PTR, at.textures],
    [L.P_BYTES, built.end - L.PACK],
    [L.P_NODES, built.nodes],
    [L.P_BLOCKS, built.blocks]
  ];
  for (const [offset, value] of values) u32[header + offset / 4] = value;
  f32.set([...bounds.min, ...bounds.max], header + L.P_BOUNDS / 4);
  return { bytes: bytes.slice(L.PACK, built.end), triangles: countTriangles(scene), nodes: built.nodes, buildSeconds };
}

/** Where each begins when all lie in a row, and the end. */
function startsOf<T>(things: readonly T[], size: (thing: T) => number): number[] {
  const out = [0];
  for (const thing of things) out.push(out.at(-1)! + size(thing));
  return out;
}

function writeGeometry(
  { u16, f32, u32 }: Views,
  geometry: SceneGeometry,
  firstVertex: number,
  firstTriangle: number,
  at: { vertices: number; triangles: number }
): void {
  const vertices = geometry.positions.length / 3;
  for (let v = 0; v < vertices; v++) {
    const o = (at.vertices + (firstVertex + v) * L.VERTEX_BYTES) >> 2;
    for (let k = 0; k < 3; k++) {
      f32[o + k] = geometry.positions[v * 3 + k]!;
      f32[o + L.V_NORMAL / 4 + k] = geometry.normals[v * 3 + k]!;
    }
    for (let k = 0; k < 2; k++) {
      f32[o + L.V_UV0 / 4 + k] = geometry.uv0[v * 2 + k]!;
      f32[o + L.V_UV1 / 4 + k] = geometry.uv1[v * 2 + k]!;
    }
    for (let k = 0; k < 4; k++) f32[o + L.V_TANGENT / 4 + k] = geometry.tangents[v * 4 + k]!;
    for (let k = 0; k < 4; k++) u16[(o << 1) + L.V_COLOR / 2 + k] = geometry.colors[v * 4 + k]!;
  }
  for (let t = 0, o = (at.triangles >> 2) + firstTriangle * 4; t < geometry.triangleMaterials.length; t++, o += 4) {
    for (let k = 0; k < 3; k++) u32[o + k] = geometry.indices[t * 3 + k]! + firstVertex;
    u32[o + 3] = geometry.triangleMaterials[t]!;
  }
}
