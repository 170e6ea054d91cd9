/** Reads what material extensions lay over or beside the plain model of glTF. */
import type { Material, Texture, TextureInfo } from '@gltf-transform/core';
import type {
  Anisotropy,
  Clearcoat,
  DiffuseTransmission,
  Dispersion,
  Iridescence,
  Sheen,
  Specular
} from '@gltf-transform/extensions';
import type { Vec3 } from '../../core/math/vec3';
import { LAYERS_DEFAULTS, type LayerTexture, type MaterialLayers, type TextureUse } from '../../core/scene/scene';

export type UseTexture = (texture: Texture | null, info: TextureInfo | null, encoded: boolean) => TextureUse | null;

interface Extensions {
  specular: Specular | null;
  anisotropy: Anisotropy | null;
  coat: Clearcoat | null;
  sheen: Sheen | null;
  iridescence: Iridescence | null;
  dispersion: Dispersion | null;
  through: DiffuseTransmission | null;
}

const extensionsOf = (m: Material): Extensions => ({
  specular: m.getExtension<Specular>('KHR_materials_specular'),
  anisotropy: m.getExtension<Anisotropy>('KHR_materials_anisotropy'),
  coat: m.getExtension<Clearcoat>('KHR_materials_clearcoat'),
  sheen: m.getExtension<Sheen>('KHR_materials_sheen'),
  iridescence: m.getExtension<Iridescence>('KHR_materials_iridescence'),
  dispersion: m.getExtension<Dispersion>('KHR_materials_dispersion'),
  through: m.getExtension<DiffuseTransmission>('KHR_materials_diffuse_transmission')
});

type Found = [LayerTexture, Texture | null, TextureInfo | null, boolean];

function texturesOf({ specular, anisotropy, coat, sheen, iridescence, through }: Extensions): Found[] {
  const found: (Found | null)[] = [
    specular && ['specular', specular.getSpecularTexture(), specular.getSpecularTextureInfo(), false],
    specular && ['specularColor', specular.getSpecularColorTexture(), specular.getSpecularColorTextureInfo(), true],
    anisotropy && ['anisotropy', anisotropy.getAnisotropyTexture(), anisotropy.getAnisotropyTextureInfo(), false],
    coat && ['coat', coat.getClearcoatTexture(), coat.getClearcoatTextureInfo(), false],
    coat && ['coatRoughness', coat.getClearcoatRoughnessTexture(), coat.getClearcoatRoughnessTextureInfo(), false],
    coat && ['coatNormal', coat.getClearcoatNormalTexture(), coat.getClearcoatNormalTextureInfo(), false],
    sheen && ['sheenColor', sheen.getSheenColorTexture(), sheen.getSheenColorTextureInfo(), true],
    sheen && ['sheenRoughness', sheen.getSheenRoughnessTexture(), sheen.getSheenRoughnessTextureInfo(), false],
    iridescence && ['iridescence', iridescence.getIridescenceTexture(), iridescence.getIridescenceTextureInfo(), false],
    iridescence && [
      'filmThickness',
      iridescence.getIridescenceThicknessTexture(),
      iridescence.getIridescenceThicknessTextureInfo(),
      false
    ],
    through && [
      'diffuseTransmission',
      through.getDiffuseTransmissionTexture(),
      through.getDiffuseTransmissionTextureInfo(),
      false
    ],
    through && [
      'diffuseTransmissionColor',
      through.getDiffuseTransmissionColorTexture(),
      through.getDiffuseTransmissionColorTextureInfo(),
      true
    ]
  ];
  return found.filter((f): f is Found => f !== null && f[1] !== null);
}

/** Textures that hold colours (encoded) and those that hold numbers. */
export function layerTextures(m: Material): { encoded: Texture[]; linear: Texture[] } {
  const found = texturesOf(extensionsOf(m));
  return { encoded: found.filter((f) => f[3]).map((f) => f[1]!), linear: found.filter((f) => !f[3]).map((f) => f[1]!) };
}

export function readLayers(m: Material, use: UseTexture): MaterialLayers | null {
  const e = extensionsOf(m);
  const textures: MaterialLayers['textures'] = {};
  for (const [name, texture, info, encoded] of texturesOf(e)) textures[name] = use(texture, info, encoded)!;
  const d = LAYERS_DEFAULTS;
  const layers: MaterialLayers = {
    specularColor: (e.specular?.getSpecularColorFactor() as Vec3 | undefined) ?? d.specularColor,
    anisotropy: e.anisotropy?.getAnisotropyStrength() ?? 0,
    anisotropyRotation: e.anisotropy?.getAnisotropyRotation() ?? 0,
    coat: e.coat?.getClearcoatFactor() ?? 0,
    coatRoughness: e.coat?.getClearcoatRoughnessFactor() ?? 0,
    coatNormalScale: e.coat?.getClearcoatNormalScale() ?? 1,
    sheenColor: (e.sheen?.getSheenColorFactor() as Vec3 | undefined) ?? d.sheenColor,
    sheenRoughness: e.sheen?.getSheenRoughnessFactor() ?? 0,
    iridescence: e.iridescence?.getIridescenceFactor() ?? 0,
    filmIor: e.iridescence?.getIridescenceIOR() ?? d.filmIor,
    filmThickness: e.iridescence
      ? [e.iridescence.getIridescenceThicknessMinimum(), e.iridescence.getIridescenceThicknessMaximum()]
      : d.filmThickness,
    dispersion: e.dispersion?.getDispersion() ?? 0,
    diffuseTransmission: e.through?.getDiffuseTransmissionFactor() ?? 0,
    diffuseTransmissionColor:
      (e.through?.getDiffuseTransmissionColorFactor() as Vec3 | undefined) ?? d.diffuseTransmissionColor,
    textures
  };
  // a layer without weight is none, whatever else is said of it
  const tinted = layers.specularColor.some((c) => c !== 1) || textures.specular || textures.specularColor;
  const some =
    tinted ||
    layers.anisotropy > 0 ||
    layers.coat > 0 ||
    layers.sheenColor.some((c) => c > 0) ||
    layers.iridescence > 0 ||
    layers.dispersion > 0 ||
    layers.diffuseTransmission > 0;
  return some ? layers : null;
}
