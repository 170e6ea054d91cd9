/**
 * Compiles a scene to a scene pack: the bytes that lie at PACK in the kernel's memory (layout: assembly/layout.ts), BVH included.
 * The same scene gives the same bytes on the same compile; others fetch the pack instead of compiling anew.
 */
import { srgbTable } from '../../core/color/srgb';
import { add, cross, normalize, type Vec3 } from '../../core/math/vec3';
import { glassAlbedo, metalAlbedo } from '../../core/materials/albedo-tables';
import { sheenAlbedo } from '../../core/materials/sheen';
import { groupLights } from '../../core/scene/light-groups';
import { boundsOf, type LayerTexture, type MaterialLayers, type Scene, type SceneMaterial, type TextureUse } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import { createMemory, instantiate, MOST_BYTES } from './kernel';
import { buildLightTree, type TreeLight, widen } from './light-tree';
import { buildMipLevels } from './mip-levels';
import { collectPortals } from './portals';

export interface ScenePack {
  bytes: Uint8Array;
  triangles: number;
  nodes: number;
  lights: number;
  buildSeconds: number;
}

const WRAP = { repeat: L.WRAP_REPEAT, clamp: L.WRAP_CLAMP, mirror: L.WRAP_MIRROR } as const;
const align = (n: number) => (n + 255) & ~255;

export function buildPack(scene: Scene, module: WebAssembly.Module, now: () => number): ScenePack {
  const { geometry } = scene;
  const vertices = geometry.positions.length / 3;
  const triangles = geometry.indices.length / 3;
  const mips = scene.textures.map(buildMipLevels);
  const glassIors = [...new Set(scene.materials.filter((m) => m.transmission > 0 && m.solid).map((m) => Math.fround(m.ior)))];
  const glassBytes = 2 * L.GLASS_ROUGH_STEPS * L.ALBEDO_STEPS * 4;
  const emitters = collectEmitters(scene);
  const points = scene.lights.filter((l) => l.kind !== 'directional');
  const suns = scene.lights.filter((l) => l.kind === 'directional');
  const lightCount = emitters.length + points.length;
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
    triLight: take(triangles * 4),
    materials: take(Math.max(1, scene.materials.length) * L.MATERIAL_BYTES),
    textures: take(Math.max(1, scene.textures.length) * L.TEXTURE_BYTES),
    lights: take(lightCount * L.LIGHT_BYTES),
    lightNodes: take(Math.max(1, lightCount) * L.LIGHT_NODE_BYTES),
    directional: take(suns.length * L.DIRECTIONAL_BYTES),
    portals: take(portals.length * L.PORTAL_BYTES),
    srgb: take(1024),
    metal: take(L.ALBEDO_STEPS * L.ALBEDO_STEPS * 4),
    sheen: take(L.ALBEDO_STEPS * L.ALBEDO_STEPS * 4),
    glass: glassIors.map(() => take(glassBytes)),
    mips: mips.map((levels) => levels.map((level) => take(level.pixels.length)))
  };
  // the worst case of blocks and nodes; what is not used is never touched, and cut off at the end
  const blocks = take(triangles * 160 + 256);
  const nodes = take(triangles * 128 + 512);
  const references = take(triangles * 32 + 64);
  const flags = take(triangles);
  const scratch = take(1 << 21);
  if (top > MOST_BYTES) throw new RangeError(`buildPack: expected a scene below 4 GiB, got ${(top / 2 ** 30).toFixed(1)} GiB for ${triangles} triangles`);
  const memory = createMemory(top + 65_536);
  const bytes = new Uint8Array(memory.buffer);
  const f32 = new Float32Array(memory.buffer);
  const u32 = new Uint32Array(memory.buffer);
  const i32 = new Int32Array(memory.buffer);

  for (let v = 0; v < vertices; v++) {
    const o = (at.vertices + v * L.VERTEX_BYTES) >> 2;
    f32.set(geometry.positions.subarray(v * 3, v * 3 + 3), o);
    f32.set(geometry.normals.subarray(v * 3, v * 3 + 3), o + L.V_NORMAL / 4);
    f32.set(geometry.uv0.subarray(v * 2, v * 2 + 2), o + L.V_UV0 / 4);
    f32.set(geometry.uv1.subarray(v * 2, v * 2 + 2), o + L.V_UV1 / 4);
    f32.set(geometry.tangents.subarray(v * 4, v * 4 + 4), o + L.V_TANGENT / 4);
    bytes.set(geometry.colors.subarray(v * 4, v * 4 + 4), (o << 2) + L.V_COLOR);
  }
  u32.set(geometry.indices, at.indices >> 2);
  u32.set(geometry.triangleMaterials, at.triMaterial >> 2);
  i32.fill(-1, at.triLight >> 2, (at.triLight >> 2) + triangles);

  const materialFlags = scene.materials.map(flagsOf);
  scene.materials.forEach((material, m) => {
    const o = (at.materials + m * L.MATERIAL_BYTES) >> 2;
    f32.set(material.baseColor, o + L.M_BASE / 4);
    f32[o + L.M_METALLIC / 4] = material.metallic;
    f32[o + L.M_ROUGHNESS / 4] = material.roughness;
    f32[o + L.M_IOR / 4] = material.ior;
    f32[o + L.M_SPECULAR / 4] = material.specular;
    f32[o + L.M_TRANSMISSION / 4] = material.transmission;
    f32.set(material.emissive, o + L.M_EMISSIVE / 4);
    u32[o + L.M_FLAGS / 4] = materialFlags[m]!;
    u32[o + L.M_GROUP / 4] = groups.ofMaterial[m]!;
    f32.set(
      material.attenuationColor.map((c) => (Number.isFinite(material.attenuationDistance) ? -Math.log(Math.max(c, 1e-6)) / material.attenuationDistance : 0)),
      o + L.M_SIGMA / 4
    );
    f32[o + L.M_ALPHA_CUTOFF / 4] = material.alphaCutoff;
    f32[o + L.M_NORMAL_SCALE / 4] = material.normalScale;
    const glass = material.solid && material.transmission > 0 ? glassIors.indexOf(Math.fround(material.ior)) : -1;
    u32[o + L.M_GLASS_ALBEDO_PTR / 4] = glass >= 0 ? at.glass[glass]! : 0;
    const slots: (TextureUse | null)[] = Array.from({ length: L.SLOTS }, () => null);
    slots[L.SLOT_BASE] = material.baseTexture;
    slots[L.SLOT_METAL_ROUGH] = material.metalRoughTexture;
    slots[L.SLOT_NORMAL] = material.normalTexture;
    slots[L.SLOT_EMISSIVE] = material.emissiveTexture;
    slots[L.SLOT_TRANSMISSION] = material.transmissionTexture;
    if (material.layers) {
      writeLayers(f32, o, material.layers);
      for (const [name, use] of Object.entries(material.layers.textures)) slots[LAYER_SLOTS[name as LayerTexture]] = use;
    }
    slots.forEach((use, slot) => {
      const s = o + (L.M_SLOTS + slot * L.SLOT_BYTES) / 4;
      i32[s] = use ? use.texture : -1;
      if (!use) return;
      u32[s + 1] = use.uvSet;
      u32[s + 2] = WRAP[use.wrapS] | (WRAP[use.wrapT] << 8);
      f32.set(use.transform, s + L.SLOT_TRANSFORM / 4);
      const [a, b, , d, e] = use.transform;
      f32[s + L.SLOT_LOG_SCALE / 4] = 0.5 * Math.log2(Math.max(Math.abs(a * e - b * d), 1e-12));
    });
  });

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

  const treeLights: TreeLight[] = [];
  emitters.forEach((emitter, i) => {
    const o = (at.lights + i * L.LIGHT_BYTES) >> 2;
    u32[o] = L.LIGHT_TRIANGLE;
    u32[o + L.L_TRIANGLE / 4] = emitter.triangle;
    u32[o + L.L_GROUP / 4] = groups.ofMaterial[geometry.triangleMaterials[emitter.triangle]!]!;
    f32[o + L.L_AREA / 4] = emitter.area;
    writeTriangle(f32, o + L.L_POSITION / 4, geometry, emitter.triangle);
    i32[(at.triLight >> 2) + emitter.triangle] = i;
    treeLights.push(treeLightOf(geometry, emitter));
  });
  points.forEach((light, k) => {
    const o = (at.lights + (emitters.length + k) * L.LIGHT_BYTES) >> 2;
    u32[o] = light.kind === 'spot' ? L.LIGHT_SPOT : L.LIGHT_POINT;
    u32[o + L.L_GROUP / 4] = groups.ofLight[scene.lights.indexOf(light)]!;
    f32.set(light.position, o + L.L_POSITION / 4);
    f32.set(light.intensity, o + L.L_INTENSITY / 4);
    if (light.kind === 'spot') {
      const inner = Math.cos(Math.min(light.innerAngle, light.outerAngle - 1e-4));
      const outer = Math.cos(light.outerAngle);
      f32.set(light.direction, o + L.L_AXIS / 4);
      f32[o + L.L_COS_OUTER / 4] = outer;
      f32[o + L.L_CONE_SCALE / 4] = 1 / Math.max(inner - outer, 1e-4);
    }
    const strength = luminanceOf(light.intensity);
    treeLights.push({ min: light.position, max: light.position, strength, axis: light.kind === 'spot' ? light.direction : [0, 1, 0], ...(light.kind === 'spot' ? { spread: 0, beyond: light.outerAngle } : { spread: Math.PI, beyond: 0 }) });
  });
  const lightNodes = widen(buildLightTree(treeLights));
  lightNodes.forEach(({ children, place }, n) => {
    const o = (at.lightNodes + n * L.LIGHT_NODE_BYTES) >> 2;
    children.forEach(({ light, node, bound }, slot) => {
      // a little wider than it is, because the kernel reckons in single precision
      const radius = (Math.hypot(...bound.max.map((v, k) => v - bound.min[k]!)) / 2) * 1.0001;
      const middle = bound.min.map((v, k) => (v + bound.max[k]!) / 2);
      const falls = Math.abs(bound.beyond - Math.PI / 2) < 1e-6 ? 1 : 0;
      const values = [...middle, radius, ...bound.axis, bound.strength, Math.cos(bound.spread), Math.sin(bound.spread), Math.cos(Math.min(bound.beyond, Math.PI)) - 1e-4, falls];
      values.forEach((value, k) => {
        f32[o + k * 4 + slot] = value;
      });
      u32[o + L.N_CHILDREN / 4 + slot] = light >= 0 ? (L.LIGHT_LEAF | light) >>> 0 : node;
      if (light >= 0) u32[(at.lights + light * L.LIGHT_BYTES + L.L_LEAF) >> 2] = n * 4 + slot;
    });
    u32[o + L.N_PLACE / 4] = place < 0 ? L.NO_NODE : place;
  });
  suns.forEach((light, i) => {
    const o = (at.directional + i * L.DIRECTIONAL_BYTES) >> 2;
    f32.set(light.direction.map((c) => -c), o);
    f32.set(light.illuminance, o + 3);
    u32[o + L.D_GROUP / 4] = groups.ofLight[scene.lights.indexOf(light)]!;
  });
  portals.forEach((portal, i) => {
    const o = (at.portals + i * L.PORTAL_BYTES) >> 2;
    f32.set([...portal.corner, ...portal.a, ...portal.b, portal.area, ...portal.normal, ...portal.alongA, ...portal.alongB, portal.shape], o);
  });
  f32.set(srgbTable(), at.srgb >> 2);
  f32.set(metalAlbedoOnce(), at.metal >> 2);
  if (scene.materials.some((m) => m.layers?.sheenColor.some((c) => c > 0))) f32.set(sheenAlbedoOnce(), at.sheen >> 2);
  for (const [i, ior] of glassIors.entries()) f32.set(glassAlbedo(ior, L.GLASS_ROUGH_STEPS, L.ALBEDO_STEPS), at.glass[i]! >> 2);

  const began = now();
  let root = 0;
  let nodeCount = 0;
  let blockCount = 0;
  let end = align(blocks);
  if (triangles > 0) {
    for (let t = 0; t < triangles; t++) bytes[flags + t] = materialFlags[geometry.triangleMaterials[t]!]! & L.FLAG_SHEER ? 1 : 0;
    const kernel = instantiate(module, memory, 0);
    root = kernel.buildBvh(at.vertices, at.indices, flags, triangles, references, nodes, blocks, scratch) >>> 0;
    nodeCount = kernel.nodeCount.value as number;
    blockCount = kernel.blockCount.value as number;
    const packed = align(blocks + blockCount * 160);
    if (nodeCount > 0) root = kernel.moveNodes(nodes, nodeCount * 256, nodes - packed, root) >>> 0;
    end = packed + nodeCount * 256;
  }
  const buildSeconds = (now() - began) / 1000;

  const header = L.PACK >> 2;
  u32[header + L.P_MAGIC / 4] = L.PACK_MAGIC;
  u32[header + L.P_VERSION / 4] = L.PACK_VERSION;
  u32[header + L.P_ROOT / 4] = root;
  u32[header + L.P_TRIANGLES / 4] = triangles;
  u32[header + L.P_VERTICES_PTR / 4] = at.vertices;
  u32[header + L.P_INDICES_PTR / 4] = at.indices;
  u32[header + L.P_TRI_MATERIAL_PTR / 4] = at.triMaterial;
  u32[header + L.P_TRI_LIGHT_PTR / 4] = at.triLight;
  u32[header + L.P_MATERIALS_PTR / 4] = at.materials;
  u32[header + L.P_TEXTURES_PTR / 4] = at.textures;
  u32[header + L.P_LIGHTS_PTR / 4] = at.lights;
  u32[header + L.P_LIGHT_COUNT / 4] = lightNodes.length > 0 ? lightCount : 0;
  u32[header + L.P_LIGHT_NODES_PTR / 4] = at.lightNodes;
  u32[header + L.P_DIRECTIONAL_PTR / 4] = at.directional;
  u32[header + L.P_DIRECTIONAL_COUNT / 4] = suns.length;
  u32[header + L.P_SRGB_LUT_PTR / 4] = at.srgb;
  u32[header + L.P_METAL_ALBEDO_PTR / 4] = at.metal;
  u32[header + L.P_SHEEN_ALBEDO_PTR / 4] = at.sheen;
  const bounds = boundsOf(geometry.positions);
  f32.set([...bounds.min, ...bounds.max], header + L.P_BOUNDS / 4);
  u32[header + L.P_BYTES / 4] = end - L.PACK;
  u32[header + L.P_VERTEX_COUNT / 4] = vertices;
  u32[header + L.P_MATERIAL_COUNT / 4] = scene.materials.length;
  u32[header + L.P_PORTALS_PTR / 4] = at.portals;
  u32[header + L.P_PORTAL_COUNT / 4] = portals.length;
  u32[header + L.P_NODES / 4] = nodeCount;
  u32[header + L.P_BLOCKS / 4] = blockCount;
  return { bytes: bytes.slice(L.PACK, end), triangles, nodes: nodeCount, lights: lightCount, buildSeconds };
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

const LAYER_SLOTS: Record<LayerTexture, number> = {
  specular: L.SLOT_SPECULAR,
  specularColor: L.SLOT_SPECULAR_COLOR,
  anisotropy: L.SLOT_ANISOTROPY,
  coat: L.SLOT_COAT,
  coatRoughness: L.SLOT_COAT_ROUGHNESS,
  coatNormal: L.SLOT_COAT_NORMAL,
  sheenColor: L.SLOT_SHEEN_COLOR,
  sheenRoughness: L.SLOT_SHEEN_ROUGHNESS,
  iridescence: L.SLOT_IRIDESCENCE,
  filmThickness: L.SLOT_FILM_THICKNESS,
  diffuseTransmission: L.SLOT_DIFFUSE_TRANSMISSION,
  diffuseTransmissionColor: L.SLOT_DIFFUSE_TRANSMISSION_COLOR
};

function writeLayers(f32: Float32Array, o: number, l: MaterialLayers): void {
  f32.set(l.specularColor, o + L.M_SPECULAR_COLOR / 4);
  f32.set([l.anisotropy, Math.cos(l.anisotropyRotation), Math.sin(l.anisotropyRotation)], o + L.M_ANISOTROPY / 4);
  f32.set([l.coat, l.coatRoughness], o + L.M_COAT / 4);
  f32.set([...l.sheenColor, l.sheenRoughness], o + L.M_SHEEN / 4);
  f32.set([l.iridescence, l.filmIor, ...l.filmThickness], o + L.M_IRIDESCENCE / 4);
  f32[o + L.M_DISPERSION / 4] = l.dispersion;
  f32.set([l.diffuseTransmission, ...l.diffuseTransmissionColor], o + L.M_DIFFUSE_TRANSMISSION / 4);
  f32[o + L.M_COAT_NORMAL_SCALE / 4] = l.coatNormalScale;
}

const luminanceOf = (rgb: readonly [number, number, number]) => 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];

function flagsOf(material: SceneMaterial): number {
  let flags = 0;
  if (material.twoSided) flags |= L.FLAG_TWO_SIDED;
  if (material.alphaMode === 'mask') flags |= L.FLAG_ALPHA_MASK | L.FLAG_SHEER;
  if (material.alphaMode === 'blend') flags |= L.FLAG_ALPHA_BLEND | L.FLAG_SHEER;
  if (material.solid && material.transmission > 0) flags |= L.FLAG_SOLID;
  else if (material.transmission > 0 && material.roughness < L.CLEAR_ROUGHNESS) flags |= L.FLAG_SHEER;
  if (luminanceOf(material.emissive) > 0) flags |= L.FLAG_EMISSIVE;
  if (material.layers) flags |= L.FLAG_LAYERED;
  return flags;
}

/** Corner and two edges, nine floats. */
function writeTriangle(f32: Float32Array, at: number, { positions, indices }: Scene['geometry'], triangle: number): void {
  const [a, b, c] = [0, 1, 2].map((k) => indices[triangle * 3 + k]! * 3) as [number, number, number];
  for (let k = 0; k < 3; k++) {
    f32[at + k] = positions[a + k]!;
    f32[at + 3 + k] = positions[b + k]! - positions[a + k]!;
    f32[at + 6 + k] = positions[c + k]! - positions[a + k]!;
  }
}

function areaOf({ positions, indices }: Scene['geometry'], triangle: number): number {
  const t = new Float32Array(9);
  writeTriangle(t, 0, { positions, indices } as Scene['geometry'], triangle);
  return 0.5 * Math.hypot(t[4]! * t[8]! - t[5]! * t[7]!, t[5]! * t[6]! - t[3]! * t[8]!, t[3]! * t[7]! - t[4]! * t[6]!);
}

interface Emitter {
  triangle: number;
  /** m2 */
  area: number;
  /** Intensity along its normal, cd. */
  strength: number;
  twoSided: boolean;
}

function collectEmitters(scene: Scene): Emitter[] {
  const { triangleMaterials } = scene.geometry;
  const glow = scene.materials.map((m) => luminanceOf(m.emissive) * textureMean(scene, m.emissiveTexture));
  const out: Emitter[] = [];
  for (let t = 0; t < triangleMaterials.length; t++) {
    const material = triangleMaterials[t]!;
    if (!(glow[material]! > 0)) continue;
    const area = areaOf(scene.geometry, t);
    if (area > 1e-14) out.push({ triangle: t, area, strength: glow[material]! * area, twoSided: scene.materials[material]!.twoSided });
  }
  return out;
}

function treeLightOf(geometry: Scene['geometry'], { triangle, strength, twoSided }: Emitter): TreeLight {
  const t = new Float32Array(9);
  writeTriangle(t, 0, geometry, triangle);
  const corner: Vec3 = [t[0]!, t[1]!, t[2]!];
  const a: Vec3 = [t[3]!, t[4]!, t[5]!];
  const b: Vec3 = [t[6]!, t[7]!, t[8]!];
  const corners = [corner, add(corner, a), add(corner, b)];
  const extreme = (pick: (...v: number[]) => number): Vec3 => [0, 1, 2].map((k) => pick(...corners.map((c) => c[k]!))) as unknown as Vec3;
  return { min: extreme(Math.min), max: extreme(Math.max), strength, axis: normalize(cross(a, b)), spread: twoSided ? Math.PI : 0, beyond: Math.PI / 2 };
}

function textureMean(scene: Scene, use: TextureUse | null): number {
  if (!use) return 1;
  const { pixels } = scene.textures[use.texture]!;
  let sum = 0;
  for (let i = 0; i < pixels.length; i += 4) sum += Math.max(pixels[i]!, pixels[i + 1]!, pixels[i + 2]!);
  return Math.max(sum / (pixels.length / 4) / 255, 1 / 255);
}
