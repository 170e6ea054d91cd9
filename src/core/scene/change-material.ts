/** A material changed in the words that people use, and what of it no real surface has. */
import { luminance } from '../color/spaces';
import { decodeSrgb, srgbOfHex } from '../color/srgb';
import { meanColor, type SolidTexture } from '../materials/solid-texture';
import type { Vec3 } from '../math/vec3';
import { libraryColor } from './material-library';
import { LAYERS_DEFAULTS, type SceneMaterial } from './scene';

/** Null: as it is in the material. */
export interface MaterialChange {
  color: string | null;
  shine: number | null;
  metal: number | null;
  clear: number | null;
  tint: string | null;
  tint_cm: number;
  relief: number | null;
  brushed: number | null;
  brushed_deg: number;
  glow_nits: number | null;
  pattern_cm: number | null;
  pattern_along: 'x' | 'y' | 'z' | null;
  variation: number | null;
}

export const NO_CHANGE: MaterialChange = {
  color: null,
  shine: null,
  metal: null,
  clear: null,
  tint: null,
  tint_cm: 1,
  relief: null,
  brushed: null,
  brushed_deg: 0,
  glow_nits: null,
  pattern_cm: null,
  pattern_along: null,
  variation: null
};

/** Linear, of six digits of sRGB. */
export const linearColor = (hex: string): Vec3 => srgbOfHex(hex).map(decodeSrgb) as unknown as Vec3;

/** A pattern that only tells parts apart. */
const EVEN: SolidTexture = {
  kind: 'noise',
  size_m: 1,
  colors: [
    [1, 1, 1],
    [1, 1, 1],
    [1, 1, 1]
  ],
  relief_m: 0,
  roughness_change: 0,
  axis: 'x',
  seed: 1
};

export function changedMaterial(own: SceneMaterial, change: MaterialChange): SceneMaterial {
  const out = { ...own };
  if (change.clear !== null) {
    const isPane = own.transmission > 0 && !own.solid;
    out.transmission = change.clear;
    // without an inside there is nothing to refract in
    if (change.clear > 0 && !isPane) Object.assign(out, { solid: true, twoSided: false });
  }
  if (change.color !== null) recolor(out, linearColor(change.color));
  if (change.shine !== null) {
    if (out.layers && out.layers.coat > 0) out.layers = { ...out.layers, coatRoughness: 1 - change.shine };
    else out.roughness = 1 - change.shine;
  }
  if (change.metal !== null) out.metallic = change.metal;
  if (change.tint !== null)
    Object.assign(out, { attenuationColor: linearColor(change.tint), attenuationDistance: change.tint_cm / 100 });
  if (change.relief !== null) {
    out.normalScale *= change.relief;
    if (out.solid_texture)
      out.solid_texture = { ...out.solid_texture, relief_m: out.solid_texture.relief_m * change.relief };
  }
  // what is brushed already can be turned alone
  if (change.brushed !== null || change.brushed_deg !== 0) {
    const layers = out.layers ?? LAYERS_DEFAULTS;
    out.layers = {
      ...layers,
      anisotropy: change.brushed ?? layers.anisotropy,
      anisotropyRotation: (change.brushed_deg * Math.PI) / 180
    };
  }
  if (change.glow_nits !== null) glow(out, change.glow_nits);
  if (out.solid_texture && change.pattern_cm !== null) {
    const size_m = change.pattern_cm / 100;
    // a larger pattern is deeper in proportion
    const times = size_m / out.solid_texture.size_m;
    out.solid_texture = { ...out.solid_texture, size_m, relief_m: out.solid_texture.relief_m * times };
  }
  if (out.solid_texture && change.pattern_along !== null)
    out.solid_texture = { ...out.solid_texture, axis: change.pattern_along };
  if (change.variation !== null) out.solid_texture = { ...(out.solid_texture ?? EVEN), variation: change.variation };
  return out;
}

/** Of a clear body what is inside, of a pattern its mean, else the surface; a picture of the file is tinted. */
function recolor(out: SceneMaterial, color: Vec3): void {
  if (out.transmission > 0 && out.solid) {
    out.attenuationColor = color;
    if (!Number.isFinite(out.attenuationDistance)) out.attenuationDistance = 0.01;
    return;
  }
  if (out.solid_texture) {
    const mean = meanColor(out.solid_texture);
    const to = (c: Vec3): Vec3 =>
      c.map((v, k) => Math.min(1, (v * color[k]!) / Math.max(mean[k]!, 1e-3))) as unknown as Vec3;
    const [a, b, c] = out.solid_texture.colors;
    out.solid_texture = { ...out.solid_texture, colors: [to(a), to(b), to(c)] };
    out.baseColor = [1, 1, 1, out.baseColor[3]];
    return;
  }
  out.baseColor = [...color, out.baseColor[3]] as SceneMaterial['baseColor'];
}

/** In its own colour, as bright as that: a white one keeps the colour of what glowed before. */
function glow(out: SceneMaterial, nits: number): void {
  const before = luminance(out.emissive);
  if (nits === 0) {
    out.emissive = [0, 0, 0];
    out.emissiveTexture = null;
  } else if (before > 0) out.emissive = out.emissive.map((c) => (c * nits) / before) as unknown as Vec3;
  else {
    const [r, g, b] = libraryColor(out);
    const own = Math.max(luminance([r, g, b]), 1e-3);
    out.emissive = [(r / own) * nits, (g / own) * nits, (b / own) * nits];
  }
}

/** What is pointed out: real surfaces have none of it. Sentences; common practice, snow is 0.9 and soot 0.03. */
export function implausible(material: Partial<SceneMaterial>): string[] {
  const out: string[] = [];
  const color = libraryColor(material);
  const { metallic = 0, transmission = 0, emissive = [0, 0, 0], roughness = 1, layers = null } = material;
  const reflects = luminance(color);
  const percent = (v: number) => `${(100 * v).toFixed(v < 0.1 ? 1 : 0)}\u00a0%`;
  if (transmission < 0.5 && metallic < 0.5 && reflects > 0.9)
    out.push(
      `It reflects ${percent(reflects)} of the light; fresh snow reflects 90\u00a0%, and white paint 80\u00a0%.`
    );
  if (transmission < 0.5 && metallic < 0.5 && reflects < 0.02)
    out.push(`It reflects ${percent(reflects)} of the light; black velvet and soot still reflect 2 to 3\u00a0%.`);
  if (metallic > 0.5 && reflects < 0.2)
    out.push(`A metal that reflects ${percent(reflects)} is darker than any bare one; iron reflects 50\u00a0%.`);
  if (metallic > 0.05 && metallic < 0.95 && !(layers && layers.coat > 0))
    out.push('A surface is metal or it is not; between the two lie only dust, rust and paint with metal in it.');
  if (metallic > 0.5 && transmission > 0) out.push('Metal is never clear; take one of the two away.');
  if (transmission > 0 && roughness > 0.9) out.push('So matte, nothing clear is left to see through.');
  const nits = luminance(emissive);
  if (nits > 30_000)
    out.push(
      `It gives ${Math.round(nits).toLocaleString('en')} cd/m²; a screen gives 300, a lamp’s glass 5,000 to 30,000.`
    );
  return out;
}
