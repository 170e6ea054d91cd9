/** A model ready to be lit: flat arrays in world metres, +Y up, materials in glTF's words. What the importer makes and the kernel's packer reads. */
import type { Vec3 } from '../math/vec3';

export interface SceneGeometry {
  /** xyz a vertex. */
  positions: Float32Array;
  normals: Float32Array;
  /** xyzw a vertex, w the hand of the bitangent; zero where no normal map needs it. */
  tangents: Float32Array;
  uv0: Float32Array;
  uv1: Float32Array;
  /** rgba8, linear. */
  colors: Uint8Array;
  indices: Uint32Array;
  /** Index of the material of each triangle. */
  triangleMaterials: Uint32Array;
}

export interface TextureUse {
  texture: number;
  uvSet: 0 | 1;
  wrapS: 'repeat' | 'clamp' | 'mirror';
  wrapT: 'repeat' | 'clamp' | 'mirror';
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
  layers: null
};

/** A lamp without a surface. Intensity in cd (points, spots) or lx (directional), linear Rec. 709. */
export type SceneLight =
  | { kind: 'point'; name: string; position: Vec3; intensity: Vec3 }
  | { kind: 'spot'; name: string; position: Vec3; direction: Vec3; intensity: Vec3; innerAngle: number; outerAngle: number }
  | { kind: 'directional'; name: string; direction: Vec3; illuminance: Vec3 };

export interface SceneCamera {
  name: string;
  position_m: [number, number, number];
  target_m: [number, number, number];
  up: [number, number, number];
  projection: 'perspective' | 'parallel';
  /** On a sensor 24 mm high. */
  focal_length_mm: number;
  height_m: number | null;
}

export interface Scene {
  geometry: SceneGeometry;
  materials: SceneMaterial[];
  textures: SceneTexture[];
  lights: SceneLight[];
  cameras: SceneCamera[];
  bounds: { min: Vec3; max: Vec3 };
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
