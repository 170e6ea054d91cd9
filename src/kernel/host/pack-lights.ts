/**
 * Writes the lights of a scene as the kernel reads them: glowing triangles first, in the order of their triangles, then
 * the lamps.
 */
import { assertNever } from '../../core/result/assert-never';
import { luminance } from '../../core/color/spaces';
import { type Affine, affine } from '../../core/math/affine';
import { add, cross, normalize, scale, subtract, type Vec3 } from '../../core/math/vec3';
import type { PhotometricWeb } from '../../core/lights/web/web';
import type { LightGroups } from '../../core/scene/light-groups';
import type { Scene, SceneGeometry, SceneLight, TextureUse } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import { sharesBeforeGlass } from './behind-glass';
import { buildLightTree, joinLightTrees, type TreeLight, type TreeNode, type WideNode, widen } from './light-tree';
import type { Views } from './views';

export type Lamp = Exclude<SceneLight, { kind: 'directional' }>;
export type Directional = Extract<SceneLight, { kind: 'directional' }>;
export type LampShape = Extract<SceneLight, { radiance: Vec3 }>;

export const isShape = (light: SceneLight): light is LampShape => 'radiance' in light;

export const SHAPE_KINDS = { rectangle: L.PLACED_RECTANGLE, disc: L.PLACED_DISC, sphere: L.PLACED_SPHERE } as const;

/** The map from a shape's own coordinates (assembly/shapes.ts) to the world. */
export function shapeMatrix(shape: LampShape): Affine {
  if (shape.kind === 'sphere')
    return affine([shape.radius, 0, 0], [0, shape.radius, 0], [0, 0, shape.radius], shape.position);
  const front = normalize(shape.direction);
  const aside: Vec3 = Math.abs(front[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0];
  const right = normalize(cross(shape.kind === 'rectangle' ? shape.up : aside, front));
  const up = cross(front, right);
  const [w, h] = shape.kind === 'rectangle' ? [shape.width / 2, shape.height / 2] : [shape.radius, shape.radius];
  return affine(scale(right, w), scale(up, h), front, shape.position);
}

const shapeArea = (shape: LampShape) =>
  shape.kind === 'rectangle' ? shape.width * shape.height : Math.PI * shape.radius ** 2;

export interface Emitter {
  triangle: number;
  material: number;
  /** Corner and two edges, nine floats. */
  corners: Float32Array;
  /** m2 */
  area: number;
  /** Intensity along its normal, cd, as far as it can be aimed at. */
  strength: number;
  twoSided: boolean;
}

export function collectEmitters(scene: Pick<Scene, 'materials' | 'textures'> & { geometry: Outline }): Emitter[] {
  const { triangleMaterials } = scene.geometry;
  const glow = scene.materials.map((m) => luminance(m.emissive) * textureMean(scene, m.emissiveTexture));
  const out: Emitter[] = [];
  for (let t = 0; t < triangleMaterials.length; t++) {
    const material = triangleMaterials[t]!;
    if (!(glow[material]! > 0)) continue;
    const corners = cornersOf(scene.geometry, t);
    const area =
      0.5 *
      Math.hypot(
        corners[4]! * corners[8]! - corners[5]! * corners[7]!,
        corners[5]! * corners[6]! - corners[3]! * corners[8]!,
        corners[3]! * corners[7]! - corners[4]! * corners[6]!
      );
    if (area > 1e-14)
      out.push({
        triangle: t,
        material,
        corners,
        area,
        strength: glow[material]! * area,
        twoSided: scene.materials[material]!.twoSided
      });
  }
  return out;
}

type Outline = Pick<SceneGeometry, 'positions' | 'indices' | 'triangleMaterials'>;

export const webBytes = (web: PhotometricWeb) => L.WEB_CANDELA + web.candela.byteLength;

export interface LightAddresses {
  lights: number;
  lightNodes: number;
  directional: number;
  /** One a web. */
  webs: ReadonlyMap<PhotometricWeb, number>;
}

export interface Glow {
  emitters: readonly Emitter[];
  tree: readonly TreeNode[];
}

const glows = new WeakMap<SceneGeometry, Map<string, Glow>>();

/**
 * What glows of a model, and its tree: kept, because studios and lamps change more often than it does. `ownMaterials`:
 * how many of the materials are its own.
 */
export function glowOf(scene: Pick<Scene, 'materials' | 'textures' | 'geometry'>, ownMaterials: number): Glow {
  const kept = glows.get(scene.geometry) ?? new Map<string, Glow>();
  glows.set(scene.geometry, kept);
  const key = JSON.stringify(
    scene.materials
      .slice(0, ownMaterials)
      .map((m) => [m.emissive, m.emissiveTexture?.texture, m.twoSided, m.solid && m.transmission])
  );
  const found = kept.get(key);
  if (found) return found;
  const emitters = collectEmitters(scene);
  const shares = sharesBeforeGlass(scene, emitters);
  for (const emitter of emitters) emitter.strength *= shares.get(emitter.material) ?? 1;
  const glow = { emitters, tree: buildLightTree(emitters.map(treeLightOf)) };
  if (kept.size >= 4) kept.clear();
  kept.set(key, glow);
  return glow;
}

/** The tree over what glows of a model and of added surfaces, and over the lamps, numbered in that order. */
export function lightTreeOf(glow: Glow, added: readonly Emitter[], lamps: readonly Lamp[]): WideNode[] {
  const others = [...added.map(treeLightOf), ...lamps.map(treeLightOfLamp)];
  return widen(joinLightTrees(glow.tree, buildLightTree(others, glow.emitters.length)));
}

/** `emitters`, then `lamps`: in the order of the tree's numbers. */
export function writeLights(
  views: Views,
  at: LightAddresses,
  scene: Scene,
  emitters: readonly Emitter[],
  lamps: readonly Lamp[],
  tree: readonly WideNode[],
  groups: LightGroups
): void {
  const { f32, u32 } = views;
  emitters.forEach((emitter, i) => {
    const o = (at.lights + i * L.LIGHT_BYTES) >> 2;
    u32[o] = L.LIGHT_TRIANGLE;
    u32[o + L.L_TRIANGLE / 4] = emitter.triangle;
    u32[o + L.L_GROUP / 4] = groups.ofMaterial[emitter.material]!;
    f32[o + L.L_AREA / 4] = emitter.area;
    f32.set(emitter.corners, o + L.L_POSITION / 4);
  });
  lamps.forEach((lamp, k) => {
    const o = (at.lights + (emitters.length + k) * L.LIGHT_BYTES) >> 2;
    u32[o + L.L_GROUP / 4] = groups.ofLight[scene.lights.indexOf(lamp)]!;
    f32.set(lamp.position, o + L.L_POSITION / 4);
    writeLamp(views, o, lamp, at);
  });
  at.webs.forEach((address, web) => {
    u32.set([web.planes, web.angles], address >> 2);
    f32.set(web.candela, (address + L.WEB_CANDELA) >> 2);
  });
  writeTree(views, at, emitters.length + lamps.length, tree);
  scene.lights
    .filter((l) => l.kind === 'directional')
    .forEach((light, i) => {
      const o = (at.directional + i * L.DIRECTIONAL_BYTES) >> 2;
      f32.set(scale(light.direction, -1), o);
      f32.set(light.illuminance, o + 3);
      u32[o + L.D_GROUP / 4] = groups.ofLight[scene.lights.indexOf(light)]!;
    });
}

function writeLamp({ f32, u32 }: Views, o: number, lamp: Lamp, at: LightAddresses): void {
  switch (lamp.kind) {
    case 'point':
      u32[o] = L.LIGHT_POINT;
      f32.set(lamp.intensity, o + L.L_INTENSITY / 4);
      return;
    case 'spot': {
      const inner = Math.cos(Math.min(lamp.innerAngle, lamp.outerAngle - 1e-4));
      const outer = Math.cos(lamp.outerAngle);
      u32[o] = L.LIGHT_SPOT;
      f32.set(lamp.intensity, o + L.L_INTENSITY / 4);
      f32.set(lamp.direction, o + L.L_AXIS / 4);
      f32[o + L.L_COS_OUTER / 4] = outer;
      f32[o + L.L_CONE_SCALE / 4] = 1 / Math.max(inner - outer, 1e-4);
      return;
    }
    case 'web': {
      const axis = normalize(lamp.direction);
      u32[o] = L.LIGHT_WEB;
      f32.set(lamp.tint, o + L.L_INTENSITY / 4);
      f32.set(axis, o + L.L_AXIS / 4);
      f32.set(
        normalize(
          subtract(lamp.plane, scale(axis, lamp.plane[0] * axis[0] + lamp.plane[1] * axis[1] + lamp.plane[2] * axis[2]))
        ),
        o + L.L_PLANE / 4
      );
      u32[o + L.L_WEB / 4] = at.webs.get(lamp.web)!;
      return;
    }
    case 'rectangle':
    case 'disc':
    case 'sphere': {
      const m = shapeMatrix(lamp);
      u32[o] = L.LIGHT_SHAPE - 1 + SHAPE_KINDS[lamp.kind];
      f32.set(m.slice(0, 6), o + L.L_EDGE1 / 4);
      f32.set(m.slice(6, 9), o + L.L_AXIS / 4);
      f32[o + L.L_RADIUS / 4] = lamp.kind === 'sphere' ? lamp.radius : shapeArea(lamp);
      f32.set(lamp.radiance, o + L.L_RADIANCE / 4);
      return;
    }
    default:
      assertNever(lamp, 'kind of light');
  }
}

function writeTree({ f32, u32 }: Views, at: LightAddresses, count: number, tree: readonly WideNode[]): void {
  for (let i = 0; i < count; i++) u32[(at.lights + i * L.LIGHT_BYTES + L.L_LEAF) >> 2] = L.NO_NODE;
  tree.forEach(({ children, place }, n) => {
    const o = (at.lightNodes + n * L.LIGHT_NODE_BYTES) >> 2;
    children.forEach(({ light, node, bound: { min, max, axis, strength, spread, beyond } }, slot) => {
      const put = (field: number, value: number) => {
        f32[o + field / 4 + slot] = value;
      };
      for (let k = 0; k < 3; k++) {
        put(k * 16, (min[k]! + max[k]!) / 2);
        put(L.N_AXIS + k * 16, axis[k]!);
      }
      // a little wider than it is, because the kernel reckons in single precision
      put(L.N_RADIUS, (Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]) / 2) * 1.0001);
      put(L.N_STRENGTH, strength);
      put(L.N_COS_SPREAD, Math.cos(spread));
      put(L.N_SIN_SPREAD, Math.sin(spread));
      put(L.N_COS_END, Math.cos(Math.min(beyond, Math.PI)) - 1e-4);
      put(L.N_FALLS, Math.abs(beyond - Math.PI / 2) < 1e-6 ? 1 : 0);
      u32[o + L.N_CHILDREN / 4 + slot] = light >= 0 ? (L.LIGHT_LEAF | light) >>> 0 : node;
      if (light >= 0) u32[(at.lights + light * L.LIGHT_BYTES + L.L_LEAF) >> 2] = n * 4 + slot;
    });
    u32[o + L.N_PLACE / 4] = place < 0 ? L.NO_NODE : place;
  });
}

function cornersOf({ positions, indices }: Outline, triangle: number): Float32Array {
  const out = new Float32Array(9);
  const [a, b, c] = [0, 1, 2].map((k) => indices[triangle * 3 + k]! * 3) as [number, number, number];
  for (let k = 0; k < 3; k++) {
    out[k] = positions[a + k]!;
    out[3 + k] = positions[b + k]! - positions[a + k]!;
    out[6 + k] = positions[c + k]! - positions[a + k]!;
  }
  return out;
}

function treeLightOf({ corners: t, strength, twoSided }: Emitter): TreeLight {
  const corner: Vec3 = [t[0]!, t[1]!, t[2]!];
  const a: Vec3 = [t[3]!, t[4]!, t[5]!];
  const b: Vec3 = [t[6]!, t[7]!, t[8]!];
  const points = [corner, add(corner, a), add(corner, b)];
  const extreme = (pick: (...v: number[]) => number): Vec3 =>
    [0, 1, 2].map((k) => pick(...points.map((c) => c[k]!))) as unknown as Vec3;
  return {
    min: extreme(Math.min),
    max: extreme(Math.max),
    strength,
    axis: normalize(cross(a, b)),
    spread: twoSided ? Math.PI : 0,
    beyond: Math.PI / 2
  };
}

const EVERYWHERE = { axis: [0, 1, 0] as Vec3, spread: Math.PI, beyond: 0 };

function treeLightOfLamp(lamp: Lamp): TreeLight {
  const point = { min: lamp.position, max: lamp.position };
  switch (lamp.kind) {
    case 'point':
      return { ...point, ...EVERYWHERE, strength: luminance(lamp.intensity) };
    case 'spot':
      return {
        ...point,
        axis: lamp.direction,
        spread: 0,
        beyond: lamp.outerAngle,
        strength: luminance(lamp.intensity)
      };
    case 'web':
      return {
        ...point,
        ...EVERYWHERE,
        strength: luminance(lamp.tint) * lamp.web.candela.reduce((a, b) => Math.max(a, b), 0)
      };
    case 'rectangle':
    case 'disc':
    case 'sphere': {
      const m = shapeMatrix(lamp);
      const strength = luminance(lamp.radiance) * shapeArea(lamp);
      const reach = [0, 1, 2].map((k) =>
        lamp.kind === 'sphere' ? lamp.radius : Math.abs(m[k]!) + Math.abs(m[3 + k]!)
      ) as unknown as Vec3;
      const box = { min: subtract(lamp.position, reach), max: add(lamp.position, reach) };
      return lamp.kind === 'sphere'
        ? { ...box, ...EVERYWHERE, strength }
        : { ...box, axis: [m[6], m[7], m[8]], spread: 0, beyond: Math.PI / 2, strength };
    }
    default:
      return assertNever(lamp, 'kind of light');
  }
}

function textureMean(scene: Pick<Scene, 'textures'>, use: TextureUse | null): number {
  if (!use) return 1;
  const { pixels } = scene.textures[use.texture]!;
  let sum = 0;
  for (let i = 0; i < pixels.length; i += 4) sum += Math.max(pixels[i]!, pixels[i + 1]!, pixels[i + 2]!);
  return Math.max(sum / (pixels.length / 4) / 255, 1 / 255);
}
