/**
 * Compiles what a brief sets round a model to a rig: materials and lights, added surfaces, the tree over all (layout:
 * assembly/layout.ts). Its bytes lie behind the pack that they were made for, and begin with the header that then
 * stands before that pack. Cost: milliseconds, and 0.3 microseconds a glowing triangle; the pack's trees are not
 * touched.
 */
import { srgbTable } from '../../core/color/srgb';
import { cutBelow } from '../../core/lights/ground/polygon';
import { applyAffine, boundsUnder, IDENTITY, invertAffine, rigidPart } from '../../core/math/affine';
import { dot, normalize, type Vec3 } from '../../core/math/vec3';
import { glassAlbedo, metalAlbedo } from '../../core/materials/albedo-tables';
import { sheenAlbedo } from '../../core/materials/sheen';
import { groupLights } from '../../core/scene/light-groups';
import type { AddedSurface, LitScene } from '../../core/scene/lit-scene';
import { boundsOf, type Scene, type SceneLight, worldParts } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import { createMemory, instantiate, rigAddress } from './kernel';
import { align, buildPack, Regions, type ScenePack } from './pack';
import {
  collectEmitters,
  type Emitter,
  glowOf,
  isShape,
  type Lamp,
  lightTreeOf,
  SHAPE_KINDS,
  shapeMatrix,
  webBytes,
  writeLights
} from './pack-lights';
import { flagsOf, writeMaterials } from './pack-materials';
import { joinTrees, place } from './pack-trees';
import { collectPortals } from './portals';
import { type Views, viewsOf } from './views';

/** All of a scene as the kernel wants it. */
export interface PackedScene {
  pack: Uint8Array;
  rig: Uint8Array;
}

export function compileScene(
  scene: Scene | LitScene,
  module: WebAssembly.Module,
  now: () => number = () => 0,
  groundHeight?: number
): PackedScene & Omit<ScenePack, 'bytes'> {
  const { bytes: pack, ...more } = buildPack(scene, module, now);
  return { ...more, pack, rig: buildRig(pack, scene, module, groundHeight) };
}

/** A copy of what buildRig needs of a pack; not by slice, which for bytes read from a file is a view. */
export const packHeader = (pack: Uint8Array): Uint8Array<ArrayBuffer> =>
  new Uint8Array(pack.subarray(0, L.PACK_HEADER_BYTES));

/** `pack`: its header suffices. `groundHeight`: of a ground that the set's lamps light, m. */
export function buildRig(
  pack: Uint8Array,
  scene: Scene | LitScene,
  module: WebAssembly.Module,
  groundHeight = Number.NEGATIVE_INFINITY
): Uint8Array {
  const header = new Uint32Array(packHeader(pack).buffer);
  const read = (field: number) => header[field / 4]!;
  const added = 'added' in scene ? scene.added : [];
  const start = rigAddress(read(L.P_BYTES));
  const regions = new Regions(start + L.PACK_HEADER_BYTES);
  const take = (bytes: number) => regions.take(bytes);

  const vertexCount = added.reduce((sum, s) => sum + s.positions.length / 3, 0);
  const triangleCount = added.reduce((sum, s) => sum + s.indices.length / 3, 0);
  const vertices = take(vertexCount * L.VERTEX_BYTES + 16);
  const triangles = take(triangleCount * L.TRIANGLE_BYTES);
  // numbers of the first ones, reckoned from where the pack's begin
  const firstVertex = (vertices - read(L.P_VERTICES_PTR)) / L.VERTEX_BYTES;
  const firstTriangle = (triangles - read(L.P_TRIANGLES_PTR)) / L.TRIANGLE_BYTES;

  const shapes = scene.lights.filter(isShape);
  const glow = glowOf(scene, scene.materials.length - added.length);
  const addedGlow = addedEmitters(scene, added, firstTriangle);
  const emitterCount = glow.emitters.length + addedGlow.length;
  const lamps = scene.lights.filter((l): l is Lamp => l.kind !== 'directional');
  const webs = [...new Set(lamps.flatMap((l) => (l.kind === 'web' ? [l.web] : [])))];
  const lightCount = emitterCount + lamps.length;
  const tree = lightTreeOf(glow, addedGlow, lamps);
  const portals = collectPortals(scene);
  const groups = groupLights(scene);
  const setLights =
    'setLights' in scene && scene.setLights > 0 ? scene.lights.slice(-scene.setLights).filter(isFlat) : [];
  const own = worldParts(scene);
  let first = firstTriangle;
  const addedParts = added.map(({ name, indices }) => {
    const part = { name, first, matrix: IDENTITY };
    first += indices.length / 3;
    return part;
  });
  const parts = [...scene.instances.map((i) => ({ ...i, first: 0 })), ...own, ...addedParts];
  const glassIors = [
    ...new Set(scene.materials.filter((m) => m.transmission > 0 && m.solid).map((m) => Math.fround(m.ior)))
  ];
  const at = {
    materials: take(Math.max(1, scene.materials.length) * L.MATERIAL_BYTES),
    solids: take(scene.materials.length * L.SOLID_BYTES),
    lights: take(lightCount * L.LIGHT_BYTES),
    lightNodes: take(tree.length * L.LIGHT_NODE_BYTES),
    directional: take((scene.lights.length - lamps.length) * L.DIRECTIONAL_BYTES),
    webs: new Map(webs.map((web) => [web, take(webBytes(web))])),
    portals: take(Math.ceil(portals.length / 4) * L.PORTAL_BLOCK_BYTES),
    groundLights: take(setLights.length * L.GROUND_LIGHT_BYTES),
    parts: take(parts.length * L.PART_BYTES),
    placed: take(shapes.length * L.PLACED_BYTES),
    srgb: take(1024),
    metal: take(L.ALBEDO_STEPS * L.ALBEDO_STEPS * 4),
    sheen: take(L.ALBEDO_STEPS * L.ALBEDO_STEPS * 4),
    glass: new Map(glassIors.map((ior) => [ior, take(2 * L.GLASS_ROUGH_STEPS * L.ALBEDO_STEPS * 4)])),
    joint: take(256)
  };
  const blocks = take(triangleCount * 160 + 256);
  const nodes = take((triangleCount + shapes.length * 2) * 128 + 512);
  const scratch = {
    references: take((triangleCount + shapes.length) * 32 + 64),
    boxes: take(shapes.length * 32),
    flags: take(triangleCount),
    room: take(1 << 21)
  };
  const memory = createMemory(regions.top + 65_536);
  const views = viewsOf(memory);
  const { bytes, f32, u32 } = views;

  writeSurfaces(views, added, { vertices, triangles, flags: scratch.flags }, firstVertex, scene);
  writeMaterials(views, at.materials, scene.materials, groups.ofMaterial, at.glass, at.solids);
  writeLights(views, at, scene, [...glow.emitters, ...addedGlow], lamps, tree, groups);
  portals.forEach((portal, i) => {
    const { corner, a, b, area, normal, alongA, alongB, shape } = portal;
    const middle = corner.map((c, k) => c + 0.5 * (a[k]! + b[k]!));
    const o = (at.portals + (i >> 2) * L.PORTAL_BLOCK_BYTES) >> 2;
    [...corner, ...a, ...b, area, ...normal, ...alongA, ...alongB, shape, ...middle].forEach((value, number) => {
      f32[o + number * 4 + (i & 3)] = value;
    });
  });
  for (const [i, lamp] of setLights.entries())
    writeGroundLight(views, at.groundLights + i * L.GROUND_LIGHT_BYTES, lamp, groundHeight);
  parts.forEach((part, i) => {
    const o = (at.parts + i * L.PART_BYTES) >> 2;
    u32[o] = part.first;
    f32.set(invertAffine(rigidPart(part.matrix)), o + L.PART_FRAME / 4);
  });
  f32.set(srgbTable(), at.srgb >> 2);
  f32.set(metalAlbedoOnce(), at.metal >> 2);
  if (scene.materials.some((m) => m.layers?.sheenColor.some((c) => c > 0))) f32.set(sheenAlbedoOnce(), at.sheen >> 2);
  for (const [ior, address] of at.glass) f32.set(glassAlbedoOnce(ior), address >> 2);

  const model = {
    root: read(L.P_ROOT),
    bounds: wider({
      min: [...new Float32Array(header.buffer, L.P_BOUNDS, 3)],
      max: [...new Float32Array(header.buffer, L.P_BOUNDS + 12, 3)]
    })
  };
  let root = model.root;
  let end = at.joint + 256;
  if (triangleCount + shapes.length > 0) {
    const kernel = instantiate(module, memory, 0);
    kernel.beginTrees(
      read(L.P_VERTICES_PTR),
      read(L.P_TRIANGLES_PTR),
      scratch.flags - firstTriangle,
      nodes,
      blocks,
      scratch.room
    );
    const boxes = shapes.map((lamp, i) => {
      const light = emitterCount + lamps.indexOf(lamp);
      u32[(at.lights + light * L.LIGHT_BYTES + L.L_PLACED) >> 2] = at.placed + i * L.PLACED_BYTES;
      const flat = lamp.kind === 'sphere' ? 1 : 0;
      const bounds = { min: [-1, -1, -flat] as const, max: [1, 1, flat] as const };
      place(kernel, views, { placed: at.placed, boxes: scratch.boxes }, i, shapeMatrix(lamp), bounds, {
        kind: SHAPE_KINDS[lamp.kind],
        light
      });
      return boundsUnder(shapeMatrix(lamp), bounds);
    });
    const own = {
      root: kernel.buildTree(firstTriangle, triangleCount, scratch.boxes, shapes.length, scratch.references) >>> 0,
      bounds: wider(union([...added.map((s) => boundsOf(s.positions)), ...boxes]))
    };
    // the nodes follow the blocks without the room that was not needed
    const nodeCount = kernel.nodeCount.value as number;
    const packed = align(blocks + (kernel.blockCount.value as number) * 160);
    if (nodeCount > 0) {
      kernel.moveNodes(nodes, nodeCount * 256, nodes - packed);
      if (!(own.root & 8)) own.root -= nodes - packed;
    }
    end = packed + nodeCount * 256;
    root = model.root === 0 ? own.root : joinTrees(views, at.joint, [own, model]);
  }

  const values: [number, number][] = [
    [L.P_ROOT, root],
    [L.P_MATERIALS_PTR, at.materials],
    [L.P_LIGHTS_PTR, at.lights],
    [L.P_LIGHT_COUNT, tree.length > 0 ? lightCount : 0],
    [L.P_TRIANGLE_LIGHTS, emitterCount],
    [L.P_LIGHT_NODES_PTR, at.lightNodes],
    [L.P_DIRECTIONAL_PTR, at.directional],
    [L.P_DIRECTIONAL_COUNT, scene.lights.length - lamps.length],
    [L.P_SRGB_LUT_PTR, at.srgb],
    [L.P_METAL_ALBEDO_PTR, at.metal],
    [L.P_SHEEN_ALBEDO_PTR, at.sheen],
    [L.P_GROUND_LIGHTS_PTR, at.groundLights],
    [L.P_GROUND_LIGHTS, setLights.length],
    [L.P_PORTALS_PTR, at.portals],
    [L.P_PORTAL_COUNT, portals.length],
    [L.P_PARTS_PTR, at.parts],
    [L.P_PART_COUNT, parts.length],
    [L.P_FIRST_PART, scene.instances.length]
  ];
  for (const [offset, value] of values) header[offset / 4] = value;
  u32.set(header, start >> 2);
  return bytes.slice(start, end);
}

type Rectangle = Extract<SceneLight, { kind: 'rectangle' }>;
const isFlat = (light: SceneLight): light is Rectangle => light.kind === 'rectangle';

/** Layout: assembly/layout.ts, a lamp of the set as a ground sees it. */
function writeGroundLight({ f32, u32 }: Views, at: number, lamp: Rectangle, height: number): void {
  const m = shapeMatrix(lamp);
  const corner = (x: number, y: number): Vec3 => applyAffine(m, [x, y, 0]);
  const corners = cutBelow([corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)], height);
  f32.set(lamp.radiance, (at + L.G_RADIANCE) >> 2);
  u32[(at + L.G_COUNT) >> 2] = corners.length;
  const front = normalize(lamp.direction);
  f32.set([...front, dot(front, lamp.position)], (at + L.G_AXIS) >> 2);
  f32.set(corners.flat(), (at + L.G_CORNERS) >> 2);
}

type Box = { min: readonly number[]; max: readonly number[] };
type Bounds = { min: Vec3; max: Vec3 };

const union = (boxes: readonly Box[]): Box => ({
  min: [0, 1, 2].map((k) => Math.min(...boxes.map((b) => b.min[k]!))),
  max: [0, 1, 2].map((k) => Math.max(...boxes.map((b) => b.max[k]!)))
});

/** A little, because the kernel reckons in single precision. */
function wider({ min, max }: Box): Bounds {
  const by = 8e-6 * Math.max(...min.map(Math.abs), ...max.map(Math.abs));
  return { min: min.map((v) => v - by) as unknown as Vec3, max: max.map((v) => v + by) as unknown as Vec3 };
}

function addedEmitters(scene: Scene, added: readonly AddedSurface[], firstTriangle: number): Emitter[] {
  let first = firstTriangle;
  return added.flatMap((surface) => {
    const triangles = surface.indices.length / 3;
    const out = collectEmitters({
      materials: scene.materials,
      textures: scene.textures,
      geometry: { ...surface, triangleMaterials: new Uint32Array(triangles).fill(surface.material) }
    });
    for (const emitter of out) emitter.triangle += first;
    first += triangles;
    return out;
  });
}

function writeSurfaces(
  { bytes, f32, u32 }: Views,
  added: readonly AddedSurface[],
  at: { vertices: number; triangles: number; flags: number },
  firstVertex: number,
  scene: Scene
): void {
  let vertex = 0;
  let triangle = 0;
  for (const { positions, normals, indices, material } of added) {
    for (let t = 0; t < indices.length / 3; t++) {
      const o = (at.triangles + (triangle + t) * L.TRIANGLE_BYTES) >> 2;
      for (let k = 0; k < 3; k++) u32[o + k] = firstVertex + vertex + indices[t * 3 + k]!;
      u32[o + 3] = material;
      bytes[at.flags + triangle + t] = flagsOf(scene.materials[material]!) & L.FLAG_TRANSPARENT ? 1 : 0;
    }
    for (let v = 0; v < positions.length / 3; v++) {
      const o = (at.vertices + (vertex + v) * L.VERTEX_BYTES) >> 2;
      f32.set(positions.subarray(v * 3, v * 3 + 3), o);
      f32.set(normals.subarray(v * 3, v * 3 + 3), o + L.V_NORMAL / 4);
      // white, 16 bits a channel
      u32.fill(0xffffffff, o + L.V_COLOR / 4, o + L.V_COLOR / 4 + 2);
    }
    vertex += positions.length / 3;
    triangle += indices.length / 3;
  }
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
