/**
 * Compiles a scene to a scene pack: the bytes that lie at PACK in the kernel's memory (layout: assembly/layout.ts), trees included.
 * The same scene gives the same bytes on the same compile; others fetch the pack instead of compiling anew.
 */
import { srgbTable } from '../../core/color/srgb';
import { invertAffine, rigidPart } from '../../core/math/affine';
import { glassAlbedo, metalAlbedo } from '../../core/materials/albedo-tables';
import { sheenAlbedo } from '../../core/materials/sheen';
import { groupLights } from '../../core/scene/light-groups';
import { countTriangles, type Scene, type SceneGeometry, sceneBounds, worldParts } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import { createMemory, instantiate, MOST_BYTES } from './kernel';
import { buildMipLevels } from './mip-levels';
import { collectEmitters, type Lamp, webBytes, writeLights } from './pack-lights';
import { flagsOf, writeMaterials } from './pack-materials';
import { buildTrees, countPlaced } from './pack-trees';
import { collectPortals } from './portals';
import { type Views, viewsOf } from './views';

export interface ScenePack {
  bytes: Uint8Array;
  /** As drawn: each object as often as it stands. */
  triangles: number;
  nodes: number;
  lights: number;
  buildSeconds: number;
}

const align = (n: number) => (n + 255) & ~255;

export function buildPack(scene: Scene, module: WebAssembly.Module, now: () => number): ScenePack {
  const geometries = [scene.geometry, ...scene.objects];
  const firstVertex = startsOf(geometries, (g) => g.positions.length / 3);
  const firstTriangle = startsOf(geometries, (g) => g.indices.length / 3);
  const vertices = firstVertex.at(-1)!;
  const triangles = firstTriangle.at(-1)!;
  const placed = countPlaced(scene);
  const own = worldParts(scene);
  const parts = [...own, ...scene.instances];
  const mips = scene.textures.map(buildMipLevels);
  const glassIors = [...new Set(scene.materials.filter((m) => m.transmission > 0 && m.solid).map((m) => Math.fround(m.ior)))];
  const emitters = collectEmitters(scene);
  const lamps = scene.lights.filter((l): l is Lamp => l.kind !== 'directional');
  const webs = [...new Set(lamps.flatMap((l) => (l.kind === 'web' ? [l.web] : [])))];
  const lightCount = emitters.length + lamps.length;
  const portals = collectPortals(scene);
  const groups = groupLights(scene);

  // regions, one after another
  let top = L.PACK + L.PACK_HEADER_BYTES;
  const take = (bytes: number) => {
    const at = align(top);
    top = at + bytes;
    return at;
  };
  const at = {
    vertices: take(vertices * L.VERTEX_BYTES + 16),
    indices: take(triangles * 12),
    triMaterial: take(triangles * 4),
    materials: take(Math.max(1, scene.materials.length) * L.MATERIAL_BYTES),
    solids: take(scene.materials.length * L.SOLID_BYTES),
    textures: take(Math.max(1, scene.textures.length) * L.TEXTURE_BYTES),
    lights: take(lightCount * L.LIGHT_BYTES),
    lightNodes: take(Math.max(1, lightCount) * L.LIGHT_NODE_BYTES),
    directional: take((scene.lights.length - lamps.length) * L.DIRECTIONAL_BYTES),
    webs: new Map(webs.map((web) => [web, take(webBytes(web))])),
    portals: take(portals.length * L.PORTAL_BYTES),
    parts: take(parts.length * L.PART_BYTES),
    placed: take(placed * L.PLACED_BYTES),
    srgb: take(1024),
    metal: take(L.ALBEDO_STEPS * L.ALBEDO_STEPS * 4),
    sheen: take(L.ALBEDO_STEPS * L.ALBEDO_STEPS * 4),
    glass: new Map(glassIors.map((ior) => [ior, take(2 * L.GLASS_ROUGH_STEPS * L.ALBEDO_STEPS * 4)])),
    mips: mips.map((levels) => levels.map((level) => take(level.pixels.length)))
  };
  // the worst case of blocks and nodes; what is not used is never touched, and cut off at the end
  const blocks = take(triangles * 160 + 256);
  const nodes = take((triangles + placed * 2) * 128 + 512);
  const trees = {
    vertices: at.vertices, indices: at.indices, lights: at.lights, placed: at.placed, blocks, nodes,
    references: take(Math.max(placed + scene.geometry.indices.length / 3, ...scene.objects.map((o) => o.indices.length / 3)) * 32 + 64),
    boxes: take(placed * 32),
    flags: take(triangles),
    room: take(1 << 21)
  };
  if (top > MOST_BYTES) throw new RangeError(`buildPack: expected a scene below 4 GiB, got ${(top / 2 ** 30).toFixed(1)} GiB for ${triangles} triangles`);
  const memory = createMemory(top + 65_536);
  const views = viewsOf(memory);
  const { bytes, f32, u32 } = views;

  for (const [g, geometry] of geometries.entries()) writeGeometry(views, geometry, firstVertex[g]!, firstTriangle[g]!, at);
  writeMaterials(views, at.materials, scene.materials, groups.ofMaterial, at.glass, at.solids);
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
  const lit = writeLights(views, at, scene, emitters, lamps, groups);
  portals.forEach((portal, i) => {
    const o = (at.portals + i * L.PORTAL_BYTES) >> 2;
    f32.set([...portal.corner, ...portal.a, ...portal.b, portal.area, ...portal.normal, ...portal.alongA, ...portal.alongB, portal.shape], o);
  });
  parts.forEach((part, i) => {
    const o = (at.parts + i * L.PART_BYTES) >> 2;
    u32[o] = 'first' in part ? part.first : 0;
    f32.set(invertAffine(rigidPart(part.matrix)), o + L.PART_FRAME / 4);
  });
  f32.set(srgbTable(), at.srgb >> 2);
  f32.set(metalAlbedoOnce(), at.metal >> 2);
  if (scene.materials.some((m) => m.layers?.sheenColor.some((c) => c > 0))) f32.set(sheenAlbedoOnce(), at.sheen >> 2);
  for (const [ior, address] of at.glass) f32.set(glassAlbedoOnce(ior), address >> 2);

  const began = now();
  const sheer = scene.materials.map((m) => (flagsOf(m) & L.FLAG_SHEER ? 1 : 0));
  for (let t = 0; t < triangles; t++) bytes[trees.flags + t] = sheer[u32[(at.triMaterial >> 2) + t]!]!;
  const built = buildTrees(instantiate(module, memory, 0), views, trees, scene, firstTriangle.slice(1), own.length, (lamp) => emitters.length + lamps.indexOf(lamp));
  const buildSeconds = (now() - began) / 1000;

  const bounds = sceneBounds(scene);
  const header = L.PACK >> 2;
  const values: [number, number][] = [
    [L.P_MAGIC, L.PACK_MAGIC], [L.P_VERSION, L.PACK_VERSION], [L.P_ROOT, built.root], [L.P_TRIANGLES, triangles],
    [L.P_VERTICES_PTR, at.vertices], [L.P_INDICES_PTR, at.indices], [L.P_TRI_MATERIAL_PTR, at.triMaterial], [L.P_MATERIALS_PTR, at.materials],
    [L.P_TEXTURES_PTR, at.textures], [L.P_LIGHTS_PTR, at.lights], [L.P_LIGHT_COUNT, lit], [L.P_TRIANGLE_LIGHTS, emitters.length], [L.P_LIGHT_NODES_PTR, at.lightNodes],
    [L.P_DIRECTIONAL_PTR, at.directional], [L.P_DIRECTIONAL_COUNT, scene.lights.length - lamps.length], [L.P_SRGB_LUT_PTR, at.srgb],
    [L.P_METAL_ALBEDO_PTR, at.metal], [L.P_SHEEN_ALBEDO_PTR, at.sheen], [L.P_BYTES, built.end - L.PACK], [L.P_VERTEX_COUNT, vertices],
    [L.P_MATERIAL_COUNT, scene.materials.length], [L.P_PORTALS_PTR, at.portals], [L.P_PORTAL_COUNT, portals.length],
    [L.P_PARTS_PTR, at.parts], [L.P_PART_COUNT, own.length], [L.P_NODES, built.nodes], [L.P_BLOCKS, built.blocks]
  ];
  for (const [offset, value] of values) u32[header + offset / 4] = value;
  f32.set([...bounds.min, ...bounds.max], header + L.P_BOUNDS / 4);
  return { bytes: bytes.slice(L.PACK, built.end), triangles: countTriangles(scene), nodes: built.nodes, lights: lightCount, buildSeconds };
}

/** Where each begins when all lie in a row, and the end. */
function startsOf<T>(things: readonly T[], size: (thing: T) => number): number[] {
  const out = [0];
  for (const thing of things) out.push(out.at(-1)! + size(thing));
  return out;
}

function writeGeometry({ bytes, f32, u32 }: Views, geometry: SceneGeometry, firstVertex: number, firstTriangle: number, at: { vertices: number; indices: number; triMaterial: number }): void {
  const vertices = geometry.positions.length / 3;
  for (let v = 0; v < vertices; v++) {
    const o = (at.vertices + (firstVertex + v) * L.VERTEX_BYTES) >> 2;
    for (let k = 0; k < 3; k++) {
      f32[o + k] = geometry.positions[v * 3 + k]!;
      f32[o + L.V_NORMAL / 4 + k] = geometry.normals[v * 3 + k]!;
      bytes[(o << 2) + L.V_COLOR + k] = geometry.colors[v * 4 + k]!;
    }
    for (let k = 0; k < 2; k++) {
      f32[o + L.V_UV0 / 4 + k] = geometry.uv0[v * 2 + k]!;
      f32[o + L.V_UV1 / 4 + k] = geometry.uv1[v * 2 + k]!;
    }
    for (let k = 0; k < 4; k++) f32[o + L.V_TANGENT / 4 + k] = geometry.tangents[v * 4 + k]!;
    bytes[(o << 2) + L.V_COLOR + 3] = geometry.colors[v * 4 + 3]!;
  }
  const index = (at.indices >> 2) + firstTriangle * 3;
  for (let i = 0; i < geometry.indices.length; i++) u32[index + i] = geometry.indices[i]! + firstVertex;
  u32.set(geometry.triangleMaterials, (at.triMaterial >> 2) + firstTriangle);
}

let metalTable: Float32Array | null = null;
function metalAlbedoOnce(): Float32Array {
  metalTable ??= metalAlbedo(L.ALBEDO_STEPS);
  return metalTable;
}

let sheenTable: Float32Array | null = null;
function sheenAlbedoOnce(): Float32Array {
  sheenTable ??= sheenAlbedo(L.ALBEDO_STEPS);
  return sheenTable;
}

const glassTables = new Map<number, Float32Array>();
function glassAlbedoOnce(ior: number): Float32Array {
  const table = glassTables.get(ior) ?? glassAlbedo(ior, L.GLASS_ROUGH_STEPS, L.ALBEDO_STEPS);
  glassTables.set(ior, table);
  return table;
}
