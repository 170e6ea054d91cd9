/** Writes the lights of a scene as the kernel reads them: glowing triangles first, in the order of their triangles, then the lamps. */
import { luminance } from '../../core/color/spaces';
import { type Affine, affine } from '../../core/math/affine';
import { add, cross, normalize, scale, subtract, type Vec3 } from '../../core/math/vec3';
import type { PhotometricWeb } from '../../core/lights/web/web';
import type { LightGroups } from '../../core/scene/light-groups';
import type { Scene, SceneGeometry, SceneLight, TextureUse } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import { buildLightTree, type TreeLight, widen } from './light-tree';
import type { Views } from './views';

export type Lamp = Exclude<SceneLight, { kind: 'directional' }>;
export type Directional = Extract<SceneLight, { kind: 'directional' }>;
export type LampShape = Extract<SceneLight, { radiance: Vec3 }>;

export const isShape = (light: SceneLight): light is LampShape => 'radiance' in light;

export const SHAPE_KINDS = { rectangle: L.PLACED_RECTANGLE, disc: L.PLACED_DISC, sphere: L.PLACED_SPHERE } as const;

/** The map from a shape's own coordinates (assembly/shapes.ts) to the world. */
export function shapeMatrix(shape: LampShape): Affine {
  if (shape.kind === 'sphere') return affine([shape.radius, 0, 0], [0, shape.radius, 0], [0, 0, shape.radius], shape.position);
  const front = normalize(shape.direction);
  const aside: Vec3 = Math.abs(front[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0];
  const right = normalize(cross(shape.kind === 'rectangle' ? shape.up : aside, front));
  const up = cross(front, right);
  const [w, h] = shape.kind === 'rectangle' ? [shape.width / 2, shape.height / 2] : [shape.radius, shape.radius];
  return affine(scale(right, w), scale(up, h), front, shape.position);
}

const shapeArea = (shape: LampShape) => (shape.kind === 'rectangle' ? shape.width * shape.height : Math.PI * shape.radius ** 2);

export interface Emitter {
  triangle: number;
  /** m2 */
  area: number;
  /** Intensity along its normal, cd. */
  strength: number;
  twoSided: boolean;
}

export function collectEmitters(scene: Scene): Emitter[] {
  const { triangleMaterials } = scene.geometry;
  const glow = scene.materials.map((m) => luminance(m.emissive) * textureMean(scene, m.emissiveTexture));
  const out: Emitter[] = [];
  for (let t = 0; t < triangleMaterials.length; t++) {
    const material = triangleMaterials[t]!;
    if (!(glow[material]! > 0)) continue;
    const area = areaOf(scene.geometry, t);
    if (area > 1e-14) out.push({ triangle: t, area, strength: glow[material]! * area, twoSided: scene.materials[material]!.twoSided });
  }
  return out;
}

export const webBytes = (web: PhotometricWeb) => L.WEB_CANDELA + web.candela.byteLength;

export interface LightAddresses {
  lights: number;
  lightNodes: number;
  directional: number;
  /** One a web. */
  webs: ReadonlyMap<PhotometricWeb, number>;
}

/** Returns how many lights the tree holds. */
export function writeLights(views: Views, at: LightAddresses, scene: Scene, emitters: readonly Emitter[], lamps: readonly Lamp[], groups: LightGroups): number {
  const { f32, u32 } = views;
  const { geometry } = scene;
  const treeLights: TreeLight[] = [];
  emitters.forEach((emitter, i) => {
    const o = (at.lights + i * L.LIGHT_BYTES) >> 2;
    u32[o] = L.LIGHT_TRIANGLE;
    u32[o + L.L_TRIANGLE / 4] = emitter.triangle;
    u32[o + L.L_GROUP / 4] = groups.ofMaterial[geometry.triangleMaterials[emitter.triangle]!]!;
    f32[o + L.L_AREA / 4] = emitter.area;
    writeTriangle(f32, o + L.L_POSITION / 4, geometry, emitter.triangle);
    treeLights.push(treeLightOf(geometry, emitter));
  });
  lamps.forEach((lamp, k) => {
    const o = (at.lights + (emitters.length + k) * L.LIGHT_BYTES) >> 2;
    u32[o + L.L_GROUP / 4] = groups.ofLight[scene.lights.indexOf(lamp)]!;
    f32.set(lamp.position, o + L.L_POSITION / 4);
    treeLights.push(writeLamp(views, o, lamp, at));
  });
  at.webs.forEach((address, web) => {
    u32.set([web.planes, web.angles], address >> 2);
    f32.set(web.candela, (address + L.WEB_CANDELA) >> 2);
  });
  writeTree(views, at, treeLights);
  scene.lights.filter((l) => l.kind === 'directional').forEach((light, i) => {
    const o = (at.directional + i * L.DIRECTIONAL_BYTES) >> 2;
    f32.set(scale(light.direction, -1), o);
    f32.set(light.illuminance, o + 3);
    u32[o + L.D_GROUP / 4] = groups.ofLight[scene.lights.indexOf(light)]!;
  });
  return treeLights.some((l) => l.strength > 0) ? treeLights.length : 0;
}

const EVERYWHERE = { axis: [0, 1, 0] as Vec3, spread: Math.PI, beyond: 0 };

function writeLamp({ f32, u32 }: Views, o: number, lamp: Lamp, at: LightAddresses): TreeLight {
  const point = { min: lamp.position, max: lamp.position };
  switch (lamp.kind) {
    case 'point':
      u32[o] = L.LIGHT_POINT;
      f32.set(lamp.intensity, o + L.L_INTENSITY / 4);
      return { ...point, ...EVERYWHERE, strength: luminance(lamp.intensity) };
    case 'spot': {
      const inner = Math.cos(Math.min(lamp.innerAngle, lamp.outerAngle - 1e-4));
      const outer = Math.cos(lamp.outerAngle);
      u32[o] = L.LIGHT_SPOT;
      f32.set(lamp.intensity, o + L.L_INTENSITY / 4);
      f32.set(lamp.direction, o + L.L_AXIS / 4);
      f32[o + L.L_COS_OUTER / 4] = outer;
      f32[o + L.L_CONE_SCALE / 4] = 1 / Math.max(inner - outer, 1e-4);
      return { ...point, axis: lamp.direction, spread: 0, beyond: lamp.outerAngle, strength: luminance(lamp.intensity) };
    }
    case 'web': {
      const axis = normalize(lamp.direction);
      u32[o] = L.LIGHT_WEB;
      f32.set(lamp.tint, o + L.L_INTENSITY / 4);
      f32.set(axis, o + L.L_AXIS / 4);
      f32.set(normalize(subtract(lamp.plane, scale(axis, lamp.plane[0] * axis[0] + lamp.plane[1] * axis[1] + lamp.plane[2] * axis[2]))), o + L.L_PLANE / 4);
      u32[o + L.L_WEB / 4] = at.webs.get(lamp.web)!;
      return { ...point, ...EVERYWHERE, strength: luminance(lamp.tint) * lamp.web.candela.reduce((a, b) => Math.max(a, b), 0) };
    }
    default: {
      const m = shapeMatrix(lamp);
      u32[o] = L.LIGHT_SHAPE - 1 + SHAPE_KINDS[lamp.kind];
      f32.set(m.slice(0, 6), o + L.L_EDGE1 / 4);
      f32.set(m.slice(6, 9), o + L.L_AXIS / 4);
      f32[o + L.L_RADIUS / 4] = lamp.kind === 'sphere' ? lamp.radius : shapeArea(lamp);
      f32.set(lamp.radiance, o + L.L_RADIANCE / 4);
      const strength = luminance(lamp.radiance) * shapeArea(lamp);
      const reach = [0, 1, 2].map((k) => (lamp.kind === 'sphere' ? lamp.radius : Math.abs(m[k]!) + Math.abs(m[3 + k]!))) as unknown as Vec3;
      const box = { min: subtract(lamp.position, reach), max: add(lamp.position, reach) };
      return lamp.kind === 'sphere' ? { ...box, ...EVERYWHERE, strength } : { ...box, axis: [m[6], m[7], m[8]], spread: 0, beyond: Math.PI / 2, strength };
    }
  }
}

function writeTree({ f32, u32 }: Views, at: LightAddresses, lights: readonly TreeLight[]): void {
  lights.forEach((_, i) => {
    u32[(at.lights + i * L.LIGHT_BYTES + L.L_LEAF) >> 2] = L.NO_NODE;
  });
  widen(buildLightTree(lights)).forEach(({ children, place }, n) => {
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
}

/** Corner and two edges, nine floats. */
function writeTriangle(f32: Float32Array, at: number, { positions, indices }: SceneGeometry, triangle: number): void {
  const [a, b, c] = [0, 1, 2].map((k) => indices[triangle * 3 + k]! * 3) as [number, number, number];
  for (let k = 0; k < 3; k++) {
    f32[at + k] = positions[a + k]!;
    f32[at + 3 + k] = positions[b + k]! - positions[a + k]!;
    f32[at + 6 + k] = positions[c + k]! - positions[a + k]!;
  }
}

function areaOf(geometry: SceneGeometry, triangle: number): number {
  const t = new Float32Array(9);
  writeTriangle(t, 0, geometry, triangle);
  return 0.5 * Math.hypot(t[4]! * t[8]! - t[5]! * t[7]!, t[5]! * t[6]! - t[3]! * t[8]!, t[3]! * t[7]! - t[4]! * t[6]!);
}

function treeLightOf(geometry: SceneGeometry, { triangle, strength, twoSided }: Emitter): TreeLight {
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
