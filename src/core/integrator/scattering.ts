/**
 * Scattering functions as the kernel has them, in double precision and written to be read: the oracle of its tests.
 * Local frame, z the shading normal on the viewer's side; directions away from the surface, unit. `f` is times |cos
 * wi|. Sources as in kernel/assembly/bsdf.ts: glTF 2.0 appendix B and its material extensions; Walter et al. 2007;
 * Heitz 2014, 2018; Turquin 2019; Estevez and Kulla 2017; Belcour and Barla 2017.
 */
import { add, cross, dot, multiply, normalize, scale, type Vec3 } from '../math/vec3';
import { SMALLEST_ALPHA } from '../materials/albedo-tables';
import { fresnel } from '../materials/fresnel';
import { distribution, lambda, sampleVisibleNormal } from '../materials/ggx';
import { filmReflectance } from '../materials/iridescence';
import { sheen, SMALLEST_SHEEN_ALPHA } from '../materials/sheen';
import type { Random } from '../sampling/random';

export interface LayerValues {
  specularColor: Vec3;
  anisotropy: number;
  /** Of the brushing from +X, radians. */
  turn: number;
  coat: number;
  coatRoughness: number;
  coatNormal: Vec3;
  sheenColor: Vec3;
  sheenRoughness: number;
  iridescence: number;
  filmIor: number;
  filmThickness: number;
  diffuseTransmission: number;
  throughColor: Vec3;
}

export interface SurfaceValues {
  base: Vec3;
  metallic: number;
  roughness: number;
  transmission: number;
  ior: number;
  specular: number;
  solid: boolean;
  entering: boolean;
  layers?: LayerValues;
}

/** What single scattering keeps; 1 when smooth. Given by the tables, so that both sides scale alike. */
export interface Albedos {
  metal(roughness: number, cosine: number): number;
  glass(roughness: number, cosine: number, entering: boolean): number;
  sheen(roughness: number, cosine: number): number;
}

const SMOOTH_GLASS = 0.03;
const COAT_F0 = 0.04;
const schlickOf = (f0: Vec3, c: number): Vec3 =>
  [0, 1, 2].map((k) => f0[k]! + (1 - f0[k]!) * (1 - c) ** 5) as unknown as Vec3;

/**
 * The reflectances at right angles that make Schlick's curve pass through what the film reflects at the viewer's angle.
 */
function filmF0(base: Vec3, wo: Vec3, l: LayerValues): Vec3 {
  const rise = (1 - wo[2]) ** 5;
  const film = filmReflectance(wo[2], l.filmIor, l.filmThickness, base);
  return [0, 1, 2].map(
    (k) =>
      base[k]! + l.iridescence * (Math.min(1, Math.max(0, (film[k]! - rise) / Math.max(1 - rise, 1e-3))) - base[k]!)
  ) as unknown as Vec3;
}

export function evaluate(s: SurfaceValues, albedos: Albedos, wo: Vec3, wi: Vec3): Vec3 {
  const { layers } = s;
  if (!layers) return evaluatePlain(s, albedos, wo, wi);
  const sheenMost = Math.max(...layers.sheenColor);
  const sheenAlbedo =
    sheenMost > 0
      ? Math.max(...[wo[2], Math.abs(wi[2])].map((cosine) => albedos.sheen(layers.sheenRoughness, cosine)))
      : 0;
  const sheenKeep = 1 - sheenMost * Math.min(1, sheenAlbedo);
  const coatO = Math.max(dot(wo, layers.coatNormal), 1e-4);
  const coatI = dot(wi, layers.coatNormal);
  const coatKeep = (cosine: number) => 1 - layers.coat * (COAT_F0 + (1 - COAT_F0) * (1 - cosine) ** 5);
  const below = scale(evaluatePlain(s, albedos, wo, wi), sheenKeep);
  if (wi[2] <= 0) return scale(below, coatKeep(Math.min(coatO, Math.abs(coatI))));
  const h = normalize(add(wo, wi));
  const oh = dot(wo, h);
  const cloth =
    sheenMost > 0
      ? scale(
          layers.sheenColor,
          sheen(wo, wi, Math.max(layers.sheenRoughness ** 2, SMALLEST_SHEEN_ALPHA)) / Math.max(1, sheenAlbedo)
        )
      : ([0, 0, 0] as Vec3);
  const under = scale(add(below, cloth), coatKeep(Math.min(coatO, Math.max(coatI, 0), oh)));
  if (layers.coat === 0 || coatI <= 0) return under;
  // the coat about its own normal
  const alpha = Math.max(layers.coatRoughness ** 2, SMALLEST_ALPHA);
  const about = (w: Vec3): Vec3 => [Math.hypot(...cross(w, layers.coatNormal)), 0, dot(w, layers.coatNormal)];
  const gloss =
    (layers.coat * (COAT_F0 + (1 - COAT_F0) * (1 - oh) ** 5) * distribution(about(h), alpha)) /
    ((1 + lambda(about(wo), alpha) + lambda(about(wi), alpha)) * 4 * coatO);
  return add(under, [gloss, gloss, gloss]);
}

function evaluatePlain(s: SurfaceValues, albedos: Albedos, wo: Vec3, wi: Vec3): Vec3 {
  const l = s.layers;
  const alpha = Math.max(s.roughness ** 2, SMALLEST_ALPHA);
  const ax = alpha + (1 - alpha) * (l?.anisotropy ?? 0) ** 2;
  const root = (s.ior - 1) / (s.ior + 1);
  const tint: Vec3 = l?.specularColor ?? [1, 1, 1];
  const plainF0 = tint.map((t) => Math.min(1, root * root * t)) as unknown as Vec3;
  const f0 = l && l.iridescence > 0 ? filmF0(plainF0, wo, l) : plainF0;
  const metalF0 = l && l.iridescence > 0 ? filmF0(s.base, wo, l) : s.base;
  const through = s.solid ? 0 : (l?.diffuseTransmission ?? 0);
  const opaque = (1 - s.metallic) * (1 - s.transmission);
  const glass = (1 - s.metallic) * s.transmission;
  const rough = s.roughness >= SMOOTH_GLASS;
  const eta = s.solid ? (s.entering ? s.ior : 1 / s.ior) : s.ior;
  const kept = !rough ? 1 : s.solid ? albedos.glass(s.roughness, wo[2], s.entering) : albedos.metal(s.roughness, wo[2]);
  const takenAt = (cosine: number) => s.specular * (Math.max(...f0) + (1 - Math.max(...f0)) * (1 - cosine) ** 5);
  if (wi[2] > 0) {
    const h = normalize(add(wo, wi));
    const oh = dot(wo, h);
    // brushed: x along the brushing
    const c = Math.cos(l?.turn ?? 0);
    const t = Math.sin(l?.turn ?? 0);
    const turned = (w: Vec3): Vec3 => [c * w[0] + t * w[1], c * w[1] - t * w[0], w[2]];
    const gloss =
      distribution(turned(h), ax, alpha) /
      ((1 + lambda(turned(wo), ax, alpha) + lambda(turned(wi), ax, alpha)) * 4 * wo[2]);
    const layer = scale(schlickOf(f0, oh), s.specular * opaque * gloss);
    const lost = s.metallic > 0 ? 1 / albedos.metal(Math.sqrt(Math.sqrt(ax * alpha)), wo[2]) - 1 : 0;
    const metal = scale(multiply(schlickOf(metalF0, oh), add([1, 1, 1], scale(metalF0, lost))), s.metallic * gloss);
    const matte = scale(s.base, (opaque * (1 - through) * (1 - takenAt(Math.min(wo[2], wi[2], oh))) * wi[2]) / Math.PI);
    const isotropic = distribution(h, alpha) / ((1 + lambda(wo, alpha) + lambda(wi, alpha)) * 4 * wo[2]);
    const clear = rough ? (glass * fresnel(oh, eta) * isotropic) / kept : 0;
    return add(add(metal, layer), add(matte, [clear, clear, clear]));
  }
  const matte = scale(
    l?.throughColor ?? [1, 1, 1],
    (opaque * through * (1 - takenAt(Math.min(wo[2], -wi[2]))) * -wi[2]) / Math.PI
  );
  if (glass === 0 || !rough) return matte;
  if (!s.solid) {
    const mirrored: Vec3 = [wi[0], wi[1], -wi[2]];
    const h = normalize(add(wo, mirrored));
    const passed =
      (glass * (1 - fresnel(dot(wo, h), s.ior)) * distribution(h, alpha)) /
      ((1 + lambda(wo, alpha) + lambda(mirrored, alpha)) * 4 * wo[2] * kept);
    return add(matte, scale(s.base, passed));
  }
  let h = normalize(add(scale(wo, -1), scale(wi, -eta)));
  if (h[2] < 0) h = scale(h, -1);
  const oh = dot(wo, h);
  const ih = dot(wi, h);
  if (oh <= 0 || ih >= 0) return matte;
  const bend = oh + eta * ih;
  const value =
    (glass * (1 - fresnel(oh, eta)) * distribution(h, alpha) * oh * -ih) /
    ((1 + lambda(wo, alpha)) * (1 + lambda(wi, alpha)) * wo[2] * bend * bend * kept);
  return add(matte, scale(s.base, value));
}

/**
 * A direction with its weight f / pdf, by plain strategies: cosine for the matte part, visible normals for the rest.
 * Null when absorbed.
 */
export function sampleOpaque(
  s: SurfaceValues,
  albedos: Albedos,
  wo: Vec3,
  random: Random
): { wi: Vec3; weight: Vec3 } | null {
  const alpha = Math.max(s.roughness ** 2, SMALLEST_ALPHA);
  let wi: Vec3;
  if (random() < 0.5) {
    const r = Math.sqrt(random());
    const turn = 2 * Math.PI * random();
    wi = [r * Math.cos(turn), r * Math.sin(turn), Math.sqrt(Math.max(0, 1 - r * r))];
  } else {
    const h = sampleVisibleNormal(wo, alpha, random(), random());
    const k = 2 * dot(wo, h);
    wi = [k * h[0] - wo[0], k * h[1] - wo[1], k * h[2] - wo[2]];
  }
  if (wi[2] <= 1e-6) return null;
  const h = normalize([wo[0] + wi[0], wo[1] + wi[1], wo[2] + wi[2]]);
  const pdf = 0.5 * (wi[2] / Math.PI) + (0.5 * distribution(h, alpha)) / ((1 + lambda(wo, alpha)) * 4 * wo[2]);
  return { wi, weight: scale(evaluate(s, albedos, wo, wi), 1 / pdf) };
}
