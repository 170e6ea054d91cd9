/**
 * A model ready to be lit: flat arrays in world metres, +Y up, materials in glTF's words. What the importer makes and
 * the kernel's packer reads.
 */
import type { LampPlace } from './lamp-groups';
import type { OpenFrame } from './opening';
import type { PhotometricWeb } from '../lights/web/web';
import type { SolidTexture } from '../materials/solid-texture';
import { type Affine, boundsUnder, IDENTITY } from '../math/affine';
import type { Vec3 } from '../math/vec3';

export interface SceneGeometry {
  /** xyz a vertex. */
  positions: Float32Array;
  normals: Float32Array;
  /** xyzw a vertex, w the hand of the bitangent; zero where no normal map needs it. */
  tangents: Float32Array;
  uv0: Float32Array;
  uv1: Float32Array;
  /** rgba, linear, 0 to 65,535. */
  colors: Uint16Array;
  indices: Uint32Array;
  /** Index of the material of each triangle. */
  triangleMaterials: Uint32Array;
}

/** `broken`: it repeats, but each patch is taken from another place of it, so that the repeats are not seen. */
export type TextureWrap = 'repeat' | 'clamp' | 'mirror' | 'broken';

export interface TextureUse {
  texture: number;
  uvSet: 0 | 1;
  wrapS: TextureWrap;
  wrapT: TextureWrap;
  /** Rows of a 2x3 matrix: u' = a u + b v + c. */
  transform: [number, number, number, number, number, number];
}

export interface SceneTexture {
  name: string;
  width: number;
  height: number;
  /** rgba8, row 0 on top. */
  pixels: Uint8Array;
  encoded: boolean;
}

export interface SceneMaterial {
  name: string;
  /** Linear Rec. 709 reflectance and coverage. */
  baseColor: [number, number, number, number];
  metallic: number;
  roughness: number;
  ior: number;
  /** Weight of the dielectric reflection, 0 to 1. */
  specular: number;
  transmission: number;
  /** True when the material fills a volume and refracts; a thin sheet else. */
  solid: boolean;
  /** Colour that white light has after `attenuationDistance` m inside. */
  attenuationColor: Vec3;
  attenuationDistance: number;
  /** cd/m2. */
  emissive: Vec3;
  alphaMode: 'opaque' | 'mask' | 'blend';
  alphaCutoff: number;
  twoSided: boolean;
  normalScale: number;
  baseTexture: TextureUse | null;
  metalRoughTexture: TextureUse | null;
  normalTexture: TextureUse | null;
  emissiveTexture: TextureUse | null;
  transmissionTexture: TextureUse | null;
  /** What lies over or beside base, metal and glass; null when nothing does. */
  layers: MaterialLayers | null;
  /** A pattern that fills space; tints the base colour, changes roughness and normal. */
  solid_texture: SolidTexture | null;
  /** Its base colour is its own alone: vertices do not tint it, nor does a texture that cuts holes. */
  plain: boolean;
  /** Path of the part that it is a copy for (override-materials.ts). */
  part?: string;
  /** Of what glows: the name of the lamp that it is; null: that of the material. */
  lamp: string | null;
  /**
   * `camera`: the camera looks through it, and it still casts its shadow and is mirrored. `mirrors`: mirrors and glass
   * do not show it either.
   */
  unseen?: 'camera' | 'mirrors';
}

/** glTF's material extensions beyond the plain model, in their own words. */
export interface MaterialLayers {
  specularColor: Vec3;
  /** Strength of the brushing, 0 to 1, and its direction from the tangent, radians. */
  anisotropy: number;
  anisotropyRotation: number;
  coat: number;
  coatRoughness: number;
  coatNormalScale: number;
  sheenColor: Vec3;
  sheenRoughness: number;
  iridescence: number;
  filmIor: number;
  /** nm; where there is no texture the second counts. */
  filmThickness: [number, number];
  /** 20 over the Abbe number. */
  dispersion: number;
  diffuseTransmission: number;
  diffuseTransmissionColor: Vec3;
  textures: Partial<Record<LayerTexture, TextureUse>>;
}

export type LayerTexture =
  | 'specular'
  | 'specularColor'
  | 'anisotropy'
  | 'coat'
  | 'coatRoughness'
  | 'coatNormal'
  | 'sheenColor'
  | 'sheenRoughness'
  | 'iridescence'
  | 'filmThickness'
  | 'diffuseTransmission'
  | 'diffuseTransmissionColor';

export const LAYERS_DEFAULTS: MaterialLayers = {
  specularColor: [1, 1, 1],
  anisotropy: 0,
  anisotropyRotation: 0,
  coat: 0,
  coatRoughness: 0,
  coatNormalScale: 1,
  sheenColor: [0, 0, 0],
  sheenRoughness: 0,
  iridescence: 0,
  filmIor: 1.3,
  filmThickness: [100, 400],
  dispersion: 0,
  diffuseTransmission: 0,
  diffuseTransmissionColor: [1, 1, 1],
  textures: {}
};

export const MATERIAL_DEFAULTS: SceneMaterial = {
  name: '',
  baseColor: [1, 1, 1, 1],
  metallic: 0,
  roughness: 1,
  ior: 1.5,
  specular: 1,
  transmission: 0,
  solid: false,
  attenuationColor: [1, 1, 1],
  attenuationDistance: Number.POSITIVE_INFINITY,
  emissive: [0, 0, 0],
  alphaMode: 'opaque',
  alphaCutoff: 0.5,
  twoSided: true,
  normalScale: 1,
  baseTexture: null,
  metalRoughTexture: null,
  normalTexture: null,
  emissiveTexture: null,
  transmissionTexture: null,
  layers: null,
  solid_texture: null,
  plain: false,
  lamp: null
};

/**
 * A lamp that is no mesh. Intensity in cd (points, spots), lx (directional), radiance in cd/m2 (rectangle, disc,
 * sphere), linear Rec.
 * 709. Rectangles and discs shine to their front, `direction`, and are seen from there; `up` is the direction of their
 * height.
 */
export type SceneLight = LightShape & {
  /** On a hidden layer of the model: off until it is asked for. */
  hidden?: true;
  /** Of the node that it belongs to; lamps of a picture have none. */
  path?: string;
};

type LightShape =
  | { kind: 'point'; name: string; position: Vec3; intensity: Vec3 }
  | {
      kind: 'spot';
      name: string;
      position: Vec3;
      direction: Vec3;
      intensity: Vec3;
      innerAngle: number;
      outerAngle: number;
    }
  | { kind: 'directional'; name: string; direction: Vec3; illuminance: Vec3 }
  | {
      kind: 'rectangle';
      name: string;
      position: Vec3;
      direction: Vec3;
      up: Vec3;
      width: number;
      height: number;
      radiance: Vec3;
    }
  | { kind: 'disc'; name: string; position: Vec3; direction: Vec3; radius: number; radiance: Vec3 }
  | { kind: 'sphere'; name: string; position: Vec3; radius: number; radiance: Vec3 }
  | {
      kind: 'web';
      name: string;
      position: Vec3 /** the axis of the web, gamma 0 */;
      direction: Vec3 /** the plane C0 */;
      plane: Vec3 /** factor of the web's candela */;
      tint: Vec3;
      web: PhotometricWeb;
    };

export interface SceneCamera {
  name: string;
  position_m: [number, number, number];
  target_m: [number, number, number];
  up: [number, number, number];
  projection: 'perspective' | 'parallel';
  /** On a sensor 24 mm high. */
  focal_length_mm: number;
  height_m: number | null;
  /** Width over height of the frame that it was composed for; null when the file does not say. */
  aspect?: number | null;
}

/** A place where an object of `Scene.objects` stands. */
export interface SceneInstance {
  object: number;
  matrix: Affine;
  name: string;
  /** Where it is in the model's tree (part-paths.ts); what is made without a file has none. */
  path?: string;
}

/** What has a name in the world's own geometry: its first triangle, and where its own coordinates lie in the world. */
export interface ScenePart {
  name: string;
  path?: string;
  first: number;
  matrix: Affine;
}

/** Lines of a model: not seen until a picture gives them a width (draw-curves.ts). */
export interface SceneCurves {
  name: string;
  path?: string;
  /** Six numbers a segment, m, in the world. */
  segments: Float32Array;
  /** Index of their material, whose colour they have. */
  material: number;
}

export interface Scene {
  /** The world's own triangles. */
  geometry: SceneGeometry;
  /** Ascending by first triangle. */
  parts: ScenePart[];
  /** What stands in many places and is kept once, in its own coordinates; nothing in it glows. */
  objects: SceneGeometry[];
  instances: SceneInstance[];
  materials: SceneMaterial[];
  textures: SceneTexture[];
  /** Of the pictures that a brief puts on surfaces: their index by name (surface-pictures.ts). */
  pictures?: ReadonlyMap<string, number>;
  lights: SceneLight[];
  cameras: SceneCamera[];
  /** Through which a room gets its light, beside its panes. */
  openings?: OpenFrame[];
  /** Lines of the model, which a picture shows on request. */
  curves?: SceneCurves[];
  /** Of lights and glowing parts, as a file has them. */
  lampPlaces?: LampPlace[];
  bounds: { min: Vec3; max: Vec3 };
}

export const NO_INSTANCES: Pick<Scene, 'parts' | 'objects' | 'instances'> = { parts: [], objects: [], instances: [] };

/** The world's parts, at least one: what has none of its own is one. */
export const worldParts = ({ parts }: Pick<Scene, 'parts'>): ScenePart[] =>
  parts.length > 0 ? parts : [{ name: '', first: 0, matrix: IDENTITY }];

/**
 * Names by part, in the order that the kernel numbers them: the placed objects', the world's, then those of added
 * surfaces.
 */
export const partNames = (
  scene: Pick<Scene, 'parts' | 'instances'> & { added?: readonly { name: string }[] }
): string[] => [...scene.instances, ...worldParts(scene), ...(scene.added ?? [])].map((p) => p.name);

/** Triangles as drawn, each object as often as it stands. */
export function countTriangles(scene: Pick<Scene, 'geometry' | 'objects' | 'instances'>): number {
  return scene.instances.reduce(
    (sum, { object }) => sum + scene.objects[object]!.indices.length / 3,
    scene.geometry.indices.length / 3
  );
}

export function sceneBounds(scene: Pick<Scene, 'geometry' | 'objects' | 'instances'>): { min: Vec3; max: Vec3 } {
  const own = scene.objects.map((o) => boundsOf(o.positions));
  const boxes = scene.instances.map(({ object, matrix }) => boundsUnder(matrix, own[object]!));
  if (scene.geometry.positions.length > 0 || boxes.length === 0) boxes.push(boundsOf(scene.geometry.positions));
  const extreme = (pick: (a: number, b: number) => number, end: 'min' | 'max'): Vec3 =>
    boxes.map((b) => b[end]).reduce((a, b) => [pick(a[0], b[0]), pick(a[1], b[1]), pick(a[2], b[2])]);
  return { min: extreme(Math.min, 'min'), max: extreme(Math.max, 'max') };
}

export function boundsOf(positions: Float32Array): { min: Vec3; max: Vec3 } {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i += 3) {
    for (let k = 0; k < 3; k++) {
      const v = positions[i + k]!;
      if (v < min[k]!) min[k] = v;
      if (v > max[k]!) max[k] = v;
    }
  }
  return positions.length ? { min, max } : { min: [0, 0, 0], max: [0, 0, 0] };
}
