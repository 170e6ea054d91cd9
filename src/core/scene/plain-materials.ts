/**
 * Materials made plain for quick looks: matte, of their own colour and texture, without relief, gloss, coat, glass or
 * pattern. Holes and glow stay.
 */
import { meanColor } from '../materials/solid-texture';
import { MATERIAL_DEFAULTS, type Scene, type SceneMaterial } from './scene';

export function inPlain<T extends Pick<Scene, 'materials'>>(scene: T, names: readonly string[]): T {
  if (names.length === 0) return scene;
  const plain = new Set(names);
  return { ...scene, materials: scene.materials.map((m) => (plain.has(m.name) ? plainOf(m) : m)) };
}

function plainOf(own: SceneMaterial): SceneMaterial {
  const {
    name,
    baseColor,
    baseTexture,
    emissive,
    emissiveTexture,
    alphaMode,
    alphaCutoff,
    twoSided,
    lamp,
    unseen,
    solid_texture
  } = own;
  const [r, g, b] = solid_texture ? meanColor(solid_texture) : [1, 1, 1];
  return {
    ...MATERIAL_DEFAULTS,
    name,
    baseTexture,
    emissive,
    emissiveTexture,
    alphaMode,
    alphaCutoff,
    twoSided,
    lamp,
    ...(unseen ? { unseen } : {}),
    baseColor: [baseColor[0] * r, baseColor[1] * g, baseColor[2] * b, baseColor[3]],
    roughness: 1,
    specular: 0
  };
}

/** Whether there is anything to make plain. */
export const isPlain = (m: SceneMaterial): boolean =>
  m.metallic === 0 &&
  m.transmission === 0 &&
  m.layers === null &&
  m.solid_texture === null &&
  m.normalTexture === null &&
  m.metalRoughTexture === null &&
  (m.specular === 0 || m.roughness === 1);
