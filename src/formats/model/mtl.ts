/**
 * Materials of an OBJ's library (.mtl) in the terms of glTF. Colours are taken as displayed ones, sRGB (common practice, no
 * source); the highlight's exponent gives the roughness; what lets light through becomes a thin sheet of glass. The later
 * keywords Pr, Pm, Pc and norm are those of the physically based extension of the format.
 */
import type { Material, Texture } from '@gltf-transform/core';
import { KHRMaterialsClearcoat, KHRMaterialsIOR, KHRMaterialsSpecular } from '@gltf-transform/extensions';
import { decodeSrgb } from '../../core/color/srgb';
import { asTexture, findBeside } from './beside';
import type { ModelBuilder } from './model-builder';
import type { ModelFiles } from './reader';
import { roughnessOfExponent } from './three-document';

/** Keywords of a material in small letters, with what follows each. */
export type MtlEntry = ReadonlyMap<string, string>;

export function parseMtl(text: string): Map<string, MtlEntry> {
  const all = new Map<string, Map<string, string>>();
  let current: Map<string, string> | null = null;
  for (const line of text.replaceAll('\\\n', ' ').split(/\r?\n/)) {
    const [, keyword, rest = ''] = /^\s*(\S+)\s*(.*?)\s*$/.exec(line) ?? [];
    if (!keyword || keyword.startsWith('#')) continue;
    if (keyword.toLowerCase() === 'newmtl') {
      current = new Map();
      all.set(rest, current);
    } else current?.set(keyword.toLowerCase(), rest);
  }
  return all;
}

// Options of a texture line, and how many words follow each at most.
const OPTIONS: Record<string, number> = {
  '-s': 3,
  '-o': 3,
  '-t': 3,
  '-mm': 2,
  '-bm': 1,
  '-blendu': 1,
  '-blendv': 1,
  '-boost': 1,
  '-cc': 1,
  '-clamp': 1,
  '-imfchan': 1,
  '-texres': 1,
  '-type': 1
};

export interface MtlTexture {
  name: string;
  scale: readonly [number, number];
  offset: readonly [number, number];
}

/** "-s 2 2 1 boards.jpg": options, then a name that may hold spaces. */
export function parseTexture(line: string): MtlTexture {
  const words = line.split(/\s+/);
  let scale: [number, number] = [1, 1];
  let offset: [number, number] = [0, 0];
  while (words[0] !== undefined && Object.hasOwn(OPTIONS, words[0].toLowerCase())) {
    const option = words.shift()!.toLowerCase();
    const values: string[] = [];
    const numeric = OPTIONS[option]! > 1 || option === '-bm' || option === '-boost';
    while (values.length < OPTIONS[option]! && words.length > 1 && (!numeric || Number.isFinite(Number(words[0]))))
      values.push(words.shift()!);
    const [u = 1, v = u] = values.map(Number);
    if (option === '-s') scale = [u, v];
    if (option === '-o') offset = [values.length > 0 ? u : 0, values.length > 1 ? v : 0];
  }
  return { name: words.join(' '), scale, offset };
}

const numbers = (text = ''): number[] => (text.match(/\S+/g) ?? []).map(Number).filter(Number.isFinite);
const rgb = (text: string | undefined): [number, number, number] | null => {
  const [r, g = r, b = r] = numbers(text);
  return r === undefined ? null : [r, g!, b!];
};
const linear = (color: readonly [number, number, number]) =>
  color.map((c) => decodeSrgb(Math.min(1, Math.max(0, c)))) as [number, number, number];

export interface MtlContext {
  builder: ModelBuilder;
  files: ModelFiles;
  /** Name of the file whose folder names begin at. */
  main: string;
  missing: string[];
  /** Names of files that were asked for. */
  missingFiles: string[];
  /** Textures by the name of their file; null for one that did not come. */
  textures: Map<string, Texture | null>;
}

export async function makeMaterial(name: string, entry: MtlEntry, context: MtlContext): Promise<Material> {
  const { document } = context.builder;
  const material = document.createMaterial(name).setDoubleSided(true);
  const texture = (...keywords: string[]) => {
    const line = keywords.map((keyword) => entry.get(keyword)).find((found) => found);
    return line ? loadTexture(parseTexture(line), context) : null;
  };
  const color = await texture('map_kd', 'map_ka');
  const base = linear(rgb(entry.get('kd')) ?? [0.8, 0.8, 0.8]);
  // many programs write black beside a picture
  material.setBaseColorFactor([...(color && Math.max(...base) < 0.01 ? ([1, 1, 1] as const) : base), 1]);
  material.setBaseColorTexture(color);
  material.setMetallicFactor(numbers(entry.get('pm'))[0] ?? 0);
  const shines = Math.max(0, ...(rgb(entry.get('ks')) ?? [0])) > 0.001 && !/^[01]$/.test(entry.get('illum') ?? '');
  const exponent = numbers(entry.get('ns'))[0];
  const roughness = shines && exponent !== undefined ? roughnessOfExponent(exponent) : shines ? 0.5 : 1;
  material.setRoughnessFactor(numbers(entry.get('pr'))[0] ?? roughness);
  if (!shines && !entry.has('pr') && !entry.has('pm'))
    material.setExtension(
      'KHR_materials_specular',
      document.createExtension(KHRMaterialsSpecular).createSpecular().setSpecularFactor(0)
    );
  const ior = numbers(entry.get('ni'))[0];
  if (ior !== undefined && ior > 1 && ior < 4)
    material.setExtension('KHR_materials_ior', document.createExtension(KHRMaterialsIOR).createIOR().setIOR(ior));
  const coat = numbers(entry.get('pc'))[0];
  if (coat !== undefined && coat > 0)
    material.setExtension(
      'KHR_materials_clearcoat',
      document.createExtension(KHRMaterialsClearcoat).createClearcoat().setClearcoatFactor(Math.min(1, coat))
    );
  const normal = await texture('norm', 'map_kn');
  if (normal) material.setNormalTexture(normal);
  await glow(material, entry, texture, context);
  const cutOut = await texture('map_d');
  if (cutOut && (cutOut === color || !color)) material.setBaseColorTexture(cutOut).setAlphaMode('MASK');
  else if (cutOut) context.missing.push(`The cut-out picture of "${name}" was left out: it lies apart from its colour`);
  letThrough(material, entry, context);
  if (entry.has('map_bump') || entry.has('bump'))
    context.missing.push(`The relief of "${name}" was left out: heights without a scale`);
  return material;
}

async function glow(
  material: Material,
  entry: MtlEntry,
  texture: (...keywords: string[]) => Promise<Texture | null> | null,
  { builder }: MtlContext
): Promise<void> {
  const given = rgb(entry.get('ke'));
  const picture = await texture('map_ke');
  if (picture) material.setEmissiveTexture(picture);
  const light = given ?? (picture ? ([1, 1, 1] as const) : null);
  if (!light || Math.max(...light) <= 0) return;
  // above 1 it is light, below a displayed colour
  const most = Math.max(1, ...light);
  const shown = linear(light.map((c) => c / most) as unknown as [number, number, number]);
  builder.glow(material, [shown[0] * most, shown[1] * most, shown[2] * most]);
}

/** `d` is how much is there, `Tr` how much is not; a clear one is glass. */
function letThrough(material: Material, entry: MtlEntry, { builder }: MtlContext): void {
  const d = numbers(entry.get('d')?.replace('-halo', ''))[0];
  const tr = numbers(entry.get('tr'))[0];
  const clear = Math.min(1, Math.max(0, d !== undefined ? 1 - d : (tr ?? 0)));
  builder.letThrough(material, clear);
  if (!material.getExtension('KHR_materials_transmission')) return;
  const [r, g, b] = material.getBaseColorFactor();
  // what stays of the colour is what the sheet does not let through
  const tint = (c: number) => c + (1 - c) * clear;
  material.setBaseColorFactor([tint(r), tint(g), tint(b), 1]).setExtension('KHR_materials_specular', null);
}

async function loadTexture({ name, scale, offset }: MtlTexture, context: MtlContext): Promise<Texture | null> {
  const known = context.textures.get(name);
  if (known !== undefined) return known;
  const bytes = findBeside(context.files, context.main, name);
  const read = bytes ? await asTexture(bytes) : null;
  const made = read
    ? context.builder.document.createTexture(name).setImage(Uint8Array.from(read.image)).setMimeType(read.mimeType)
    : null;
  context.textures.set(name, made);
  if (!bytes) context.missingFiles.push(name.slice(0, 120));
  else if (!read)
    context.missing.push(`The picture "${name.slice(0, 120)}" is of a kind that cannot be read; save it as PNG`);
  if (made && (scale[0] !== 1 || scale[1] !== 1 || offset[0] !== 0 || offset[1] !== 0))
    context.missing.push(`The picture "${name.slice(0, 120)}" is repeated by the material library; that was left out`);
  return made;
}
