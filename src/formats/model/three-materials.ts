/** Materials and pictures of a loader of three.js in the terms of glTF. */
import type { Material, Texture as Picture, TextureInfo } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import {
  ClampToEdgeWrapping,
  type Material as ThreeMaterial,
  type MeshPhongMaterial,
  type MeshStandardMaterial,
  MirroredRepeatWrapping,
  type Object3D,
  type Texture
} from 'three';
import { asTexture, findBeside } from './beside';
import type { ModelBuilder } from './model-builder';
import type { ModelFiles, ReadModel } from './reader';
import { plainMaterial, roughnessOfExponent, threeDocument } from './three-document';
import type { Loaded, PictureAddress } from './without-page';

type AnyMaterial = ThreeMaterial &
  Partial<Pick<MeshStandardMaterial, 'map' | 'normalMap' | 'emissiveMap' | 'roughnessMap' | 'metalnessMap' | 'aoMap'>> &
  Partial<Pick<MeshPhongMaterial, 'shininess'>>;

interface Source {
  format: string;
  source: string;
  files: ModelFiles;
  loaded: Loaded<Object3D>;
  changed?: string[];
}

/** The whole model that a loader made, as readers hand it on. */
export async function readThree({ format, source, files, loaded, changed = [] }: Source): Promise<ReadModel> {
  const missing: string[] = [];
  const missing_files: string[] = [];
  const wanted = new Map<Material, AnyMaterial>();
  const { builder, skipped, lights } = threeDocument(loaded.value, {
    material(from, into) {
      const made = into.document.createMaterial(from.name);
      fill(made, from as AnyMaterial, into);
      wanted.set(made, from as AnyMaterial);
      return made;
    }
  });
  const pictures = new Map<string, Picture | null>();
  const pictureOf = async (texture: Texture | null | undefined): Promise<Picture | null> => {
    const address = (texture?.image as PictureAddress | undefined)?.address;
    if (!texture || address === undefined) return null;
    const known = pictures.get(address);
    if (known !== undefined) return known;
    const name = nameOf(address);
    const bytes = (await loaded.bytesOf(address)) ?? findBeside(files, source, name);
    const read = bytes ? await asTexture(bytes) : null;
    if (!bytes) missing_files.push(name.slice(0, 120));
    else if (!read)
      missing.push(`The picture "${name.slice(0, 120)}" is of a kind that cannot be read; save it as PNG`);
    const made =
      read && builder.document.createTexture(name).setImage(Uint8Array.from(read.image)).setMimeType(read.mimeType);
    pictures.set(address, made);
    return made;
  };
  for (const [material, from] of wanted) {
    const base = await pictureOf(from.map);
    if (base) {
      material.setBaseColorTexture(base);
      place(material.getBaseColorTextureInfo()!, from.map!, builder);
    }
    const normal = await pictureOf(from.normalMap);
    if (normal) {
      material.setNormalTexture(normal);
      place(material.getNormalTextureInfo()!, from.normalMap!, builder);
    }
    const glow = await pictureOf(from.emissiveMap);
    if (glow) material.setEmissiveTexture(glow);
    if (from.roughnessMap && from.roughnessMap === from.metalnessMap)
      material.setMetallicRoughnessTexture(await pictureOf(from.roughnessMap));
  }
  if (skipped) missing.push(`${skipped} parts made of points were left out: they have no surface`);
  if (lights)
    missing.push(`${lights} lamps were left out: the format gives their strength without a unit; place own lamps`);
  if (builder.creased) changed.push(`Normals were made for ${builder.creased} parts that had none`);
  return { document: builder.document, format, source, changed, missing, missing_files };
}

const nameOf = (address: string): string => {
  const plain = address.replace(/^file:\/+/i, '/').replaceAll('\\', '/');
  try {
    return decodeURI(plain);
  } catch {
    return plain;
  }
};

function fill(material: Material, from: AnyMaterial, builder: ModelBuilder): void {
  const { color, emissive, opacity = 1, roughness, metalness, shininess, twoSided, alphaTest } = plainMaterial(from);
  // black or grey beside a picture is what older materials leave there
  const base = from.map && Math.max(...color) < 0.01 ? ([1, 1, 1] as const) : color;
  material
    .setBaseColorFactor([base[0], base[1], base[2], 1])
    .setMetallicFactor(metalness ?? 0)
    .setRoughnessFactor(roughness ?? (shininess === undefined ? 1 : roughnessOfExponent(shininess)))
    .setDoubleSided(twoSided || roughness === undefined);
  if (alphaTest) material.setAlphaMode('MASK').setAlphaCutoff(alphaTest);
  else builder.letThrough(material, 1 - opacity);
  if (emissive && Math.max(...emissive) > 0) builder.glow(material, emissive);
}

const CLAMP = 33071;
const MIRROR = 33648;
const REPEAT = 10497;

/** How a picture repeats and where it begins; v counts from the bottom there and from the top in glTF. */
function place(
  info: TextureInfo,
  { wrapS, wrapT, repeat, offset, rotation }: Texture,
  { document }: ModelBuilder
): void {
  const wrap = (mode: number) =>
    mode === ClampToEdgeWrapping ? CLAMP : mode === MirroredRepeatWrapping ? MIRROR : REPEAT;
  info.setWrapS(wrap(wrapS)).setWrapT(wrap(wrapT));
  if (repeat.x === 1 && repeat.y === 1 && offset.x === 0 && offset.y === 0) return;
  if (rotation !== 0) return;
  info.setExtension(
    'KHR_texture_transform',
    document
      .createExtension(KHRTextureTransform)
      .createTransform()
      .setScale([repeat.x, repeat.y])
      .setOffset([offset.x, 1 - repeat.y - offset.y])
  );
}
