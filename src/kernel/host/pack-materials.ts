/** Writes the materials of a scene as the kernel reads them. */
import { luminance } from '../../core/color/spaces';
import type { SolidKind, SolidTexture } from '../../core/materials/solid-texture';
import type { LayerTexture, MaterialLayers, SceneMaterial, TextureUse } from '../../core/scene/scene';
import * as L from '../assembly/layout';
import type { Views } from './views';

const WRAP = { repeat: L.WRAP_REPEAT, clamp: L.WRAP_CLAMP, mirror: L.WRAP_MIRROR, broken: L.WRAP_BROKEN } as const;

/**
 * `groups`: the light group of each; `glassTables`: the address of the albedo table of each index of refraction;
 * `solids`: where the solid textures stand, room for one a material.
 */
export function writeMaterials(
  { f32, u32, i32 }: Views,
  at: number,
  materials: readonly SceneMaterial[],
  groups: readonly number[],
  glassTables: ReadonlyMap<number, number>,
  solids: number
): void {
  materials.forEach((material, m) => {
    const o = (at + m * L.MATERIAL_BYTES) >> 2;
    f32.set(material.baseColor, o + L.M_BASE / 4);
    f32[o + L.M_METALLIC / 4] = material.metallic;
    f32[o + L.M_ROUGHNESS / 4] = material.roughness;
    f32[o + L.M_IOR / 4] = material.ior;
    f32[o + L.M_SPECULAR / 4] = material.specular;
    f32[o + L.M_TRANSMISSION / 4] = material.transmission;
    f32.set(material.emissive, o + L.M_EMISSIVE / 4);
    u32[o + L.M_FLAGS / 4] = flagsOf(material);
    u32[o + L.M_GROUP / 4] = groups[m]!;
    f32.set(
      material.attenuationColor.map((c) => absorption(c, material.attenuationDistance)),
      o + L.M_SIGMA / 4
    );
    f32[o + L.M_ALPHA_CUTOFF / 4] = material.alphaCutoff;
    f32[o + L.M_NORMAL_SCALE / 4] = material.normalScale;
    u32[o + L.M_GLASS_ALBEDO_PTR / 4] =
      material.solid && material.transmission > 0 ? glassTables.get(Math.fround(material.ior))! : 0;
    u32[o + L.M_SOLID / 4] = material.solid_texture ? solids + m * L.SOLID_BYTES : 0;
    if (material.solid_texture) writeSolid(f32, u32, (solids + m * L.SOLID_BYTES) >> 2, material.solid_texture);
    if (material.layers) writeLayers(f32, o, material.layers);
    const slots = slotsOf(material);
    if (slots.some(Boolean)) u32[o + L.M_FLAGS / 4]! |= L.FLAG_TEXTURED;
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
}

function slotsOf(material: SceneMaterial): (TextureUse | null)[] {
  const slots: (TextureUse | null)[] = Array.from({ length: L.SLOTS }, () => null);
  slots[L.SLOT_BASE] = material.baseTexture;
  slots[L.SLOT_METAL_ROUGH] = material.metalRoughTexture;
  slots[L.SLOT_NORMAL] = material.normalTexture;
  slots[L.SLOT_EMISSIVE] = material.emissiveTexture;
  slots[L.SLOT_TRANSMISSION] = material.transmissionTexture;
  for (const [name, use] of Object.entries(material.layers?.textures ?? {}))
    slots[LAYER_SLOTS[name as LayerTexture]] = use;
  return slots;
}

/** Flags of a material but for FLAG_TEXTURED. */
export function flagsOf(material: SceneMaterial): number {
  let flags = 0;
  if (material.twoSided) flags |= L.FLAG_TWO_SIDED;
  // light leaves a body of glass through the backs of its surface
  else if (!(material.solid && material.transmission > 0)) flags |= L.FLAG_OPEN_BACK;
  if (material.alphaMode === 'mask') flags |= L.FLAG_ALPHA_MASK | L.FLAG_TRANSPARENT;
  if (material.alphaMode === 'blend') flags |= L.FLAG_ALPHA_BLEND | L.FLAG_TRANSPARENT;
  if (material.solid && material.transmission > 0) flags |= L.FLAG_SOLID;
  else if (material.transmission > 0 && material.roughness < L.CLEAR_ROUGHNESS) flags |= L.FLAG_TRANSPARENT;
  if (luminance(material.emissive) > 0) flags |= L.FLAG_EMISSIVE;
  if (material.layers) flags |= L.FLAG_LAYERED;
  if (material.plain) flags |= L.FLAG_PLAIN;
  if (material.unseen) flags |= L.FLAG_UNSEEN;
  // light samples count a lamp by what its mirrored light would add, so it stays in mirrors
  if (material.unseen === 'mirrors' && luminance(material.emissive) === 0) flags |= L.FLAG_UNMIRRORED;
  return flags;
}

const SOLIDS: Record<SolidKind, number> = {
  noise: L.SOLID_NOISE,
  wood: L.SOLID_WOOD,
  stone: L.SOLID_STONE,
  concrete: L.SOLID_CONCRETE,
  brick: L.SOLID_BRICK,
  terrazzo: L.SOLID_TERRAZZO,
  cloth: L.SOLID_CLOTH,
  boards: L.SOLID_BOARDS,
  herringbone: L.SOLID_HERRINGBONE,
  ribs: L.SOLID_RIBS
};

/** A metre inside leaves nothing of such light: what has no share after a distance has none before it either. */
const OPAQUE_PER_M = 1e6;

/** Of light of which `share` is left after `distance_m`, per m. Source: KHR_materials_volume, c^(d / D). */
const absorption = (share: number, distance_m: number): number => {
  if (!Number.isFinite(distance_m)) return 0;
  return share <= 0 ? OPAQUE_PER_M : -Math.log(share) / distance_m;
};

export function writeSolid(f32: Float32Array, u32: Uint32Array, o: number, solid: SolidTexture): void {
  u32.set([SOLIDS[solid.kind], solid.seed], o);
  f32.set([1 / solid.size_m, solid.relief_m / solid.size_m, solid.roughness_change], o + L.SOLID_PER_METRE / 4);
  u32[o + L.SOLID_AXIS / 4] = 'xyz'.indexOf(solid.axis);
  f32[o + L.SOLID_VARIATION / 4] = solid.variation ?? 0;
  f32.set(solid.colors.flat(), o + L.SOLID_COLORS / 4);
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
