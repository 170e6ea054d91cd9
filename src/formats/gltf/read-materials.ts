/** Materials of a glTF document and the textures that they use, decoded to rgba8. */
import type { Document, Material, Texture } from '@gltf-transform/core';
import type { EmissiveStrength, IOR, Specular, Transform, Transmission, Volume } from '@gltf-transform/extensions';
import { parseSolidTexture } from '../../core/materials/solid-texture';
import type { Vec3 } from '../../core/math/vec3';
import { MATERIAL_DEFAULTS, type SceneMaterial, type SceneTexture, type TextureUse } from '../../core/scene/scene';
import { ModelRefused } from '../model/model-refused';
import { layerTextures, readLayers, type UseTexture } from './read-layers';
import { readTexture } from './read-texture';

/** In the order of the document; `only` those of a name. */
export async function readMaterials(
  document: Document,
  only: string | null = null
): Promise<{ materials: SceneMaterial[]; textures: SceneTexture[] }> {
  const root = document.getRoot();
  const wanted = root.listMaterials().filter((m) => only === null || m.getName() === only);
  const textures: SceneTexture[] = [];
  const known = new Map<string, number>();
  const linearUses = new Set<Texture>();
  const encodedUses = new Set<Texture>();
  for (const material of wanted) {
    const layers = layerTextures(material);
    for (const t of [material.getBaseColorTexture(), material.getEmissiveTexture(), ...layers.encoded])
      if (t) encodedUses.add(t);
    const transmission = material.getExtension<Transmission>('KHR_materials_transmission')?.getTransmissionTexture();
    for (const t of [
      material.getMetallicRoughnessTexture(),
      material.getNormalTexture(),
      transmission,
      ...layers.linear
    ])
      if (t) linearUses.add(t);
  }
  for (const [uses, encoded] of [
    [encodedUses, true],
    [linearUses, false]
  ] as const) {
    for (const texture of uses) {
      const { width, height, pixels } = await readTexture(texture.getImage()!);
      known.set(`${root.listTextures().indexOf(texture)}:${encoded}`, textures.length);
      textures.push({
        name: texture.getName(),
        width,
        height,
        pixels,
        encoded
      });
    }
  }
  const use: UseTexture = (texture, info, encoded) => {
    if (!texture || !info) return null;
    const transform = info.getExtension<Transform>('KHR_texture_transform');
    const [ou, ov] = transform?.getOffset() ?? [0, 0];
    const [su, sv] = transform?.getScale() ?? [1, 1];
    const r = transform?.getRotation() ?? 0;
    const set = transform?.getTexCoord() ?? info.getTexCoord();
    return {
      texture: known.get(`${root.listTextures().indexOf(texture)}:${encoded}`)!,
      uvSet: set === 1 ? 1 : 0,
      wrapS: wrapName(info.getWrapS()),
      wrapT: wrapName(info.getWrapT()),
      transform: [su * Math.cos(r), sv * Math.sin(r), ou, -su * Math.sin(r), sv * Math.cos(r), ov]
    };
  };
  return { materials: wanted.map((m) => readMaterial(m, use)), textures };
}

const wrapName = (mode: number): TextureUse['wrapS'] =>
  mode === 33071 ? 'clamp' : mode === 33648 ? 'mirror' : 'repeat';

function readMaterial(m: Material, use: UseTexture): SceneMaterial {
  const transmission = m.getExtension<Transmission>('KHR_materials_transmission');
  const volume = m.getExtension<Volume>('KHR_materials_volume');
  const strength = m.getExtension<EmissiveStrength>('KHR_materials_emissive_strength')?.getEmissiveStrength() ?? 1;
  const mode = m.getAlphaMode();
  return {
    ...MATERIAL_DEFAULTS,
    name: m.getName(),
    baseColor: m.getBaseColorFactor() as [number, number, number, number],
    metallic: m.getMetallicFactor(),
    roughness: m.getRoughnessFactor(),
    ior: m.getExtension<IOR>('KHR_materials_ior')?.getIOR() || 1.5,
    specular: m.getExtension<Specular>('KHR_materials_specular')?.getSpecularFactor() ?? 1,
    transmission: transmission?.getTransmissionFactor() ?? 0,
    solid: (volume?.getThicknessFactor() ?? 0) > 0,
    attenuationColor: (volume?.getAttenuationColor() as [number, number, number]) ?? [1, 1, 1],
    attenuationDistance: volume?.getAttenuationDistance() || Number.POSITIVE_INFINITY,
    emissive: m.getEmissiveFactor().map((c) => c * strength) as unknown as Vec3,
    alphaMode: mode === 'MASK' ? 'mask' : mode === 'BLEND' ? 'blend' : 'opaque',
    alphaCutoff: m.getAlphaCutoff(),
    twoSided: m.getDoubleSided(),
    normalScale: m.getNormalScale(),
    baseTexture: use(m.getBaseColorTexture(), m.getBaseColorTextureInfo(), true),
    metalRoughTexture: use(m.getMetallicRoughnessTexture(), m.getMetallicRoughnessTextureInfo(), false),
    normalTexture: use(m.getNormalTexture(), m.getNormalTextureInfo(), false),
    emissiveTexture: use(m.getEmissiveTexture(), m.getEmissiveTextureInfo(), true),
    transmissionTexture: transmission
      ? use(transmission.getTransmissionTexture(), transmission.getTransmissionTextureInfo(), false)
      : null,
    layers: readLayers(m, use),
    solid_texture: readSolid(m)
  };
}

function readSolid(m: Material): SceneMaterial['solid_texture'] {
  try {
    return parseSolidTexture(m.getExtras().solid_texture);
  } catch (error) {
    throw new ModelRefused(
      'bad_solid_texture',
      `material "${m.getName()}": ${(error as Error).message}; correct it in the file's extras or take it out`
    );
  }
}
