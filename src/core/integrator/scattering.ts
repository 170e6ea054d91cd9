/**
 * Scattering functions as the kernel has them, in double precision and written to be read: the oracle of its tests.
 * Local frame, z the shading normal on the viewer's side; directions away from the surface, unit. `f` is times |cos wi|.
 * Sources as in kernel/assembly/bsdf.ts: glTF 2.0 appendix B; Walter et al. 2007; Heitz 2014, 2018; Turquin 2019.
 */
import { dot, normalize, scale, type Vec3 } from '../math/vec3';
import { SMALLEST_ALPHA } from '../materials/albedo-tables';
import { fresnel } from '../materials/fresnel';
import { distribution, lambda, sampleVisibleNormal } from '../materials/ggx';
import type { Random } from '../sampling/random';

export interface SurfaceValues {
  base: Vec3;
  metallic: number;
  roughness: number;
  transmission: number;
  ior: number;
  specular: number;
  solid: boolean;
  entering: boolean;
}

/** What single scattering keeps; 1 when smooth. Given by the tables, so that both sides scale alike. */
export interface Albedos {
  metal(roughness: number, cosine: number): number;
  glass(roughness: number, cosine: number, entering: boolean): number;
}

const SMOOTH_GLASS = 0.03;

export function evaluate(s: SurfaceValues, albedos: Albedos, wo: Vec3, wi: Vec3): Vec3 {
  const alpha = Math.max(s.roughness ** 2, SMALLEST_ALPHA);
  const root = (s.ior - 1) / (s.ior + 1);
  const f0 = root * root;
  const opaque = (1 - s.metallic) * (1 - s.transmission);
  const glass = (1 - s.metallic) * s.transmission;
  const rough = s.roughness >= SMOOTH_GLASS;
  const eta = s.solid ? (s.entering ? s.ior : 1 / s.ior) : s.ior;
  const kept = !rough ? 1 : s.solid ? albedos.glass(s.roughness, wo[2], s.entering) : albedos.metal(s.roughness, wo[2]);
  if (wi[2] > 0) {
    const h = normalize([wo[0] + wi[0], wo[1] + wi[1], wo[2] + wi[2]]);
    const oh = dot(wo, h);
    const gloss = distribution(h, alpha) / ((1 + lambda(wo, alpha) + lambda(wi, alpha)) * 4 * wo[2]);
    const rise = (1 - oh) ** 5;
    const layer = s.specular * (f0 + (1 - f0) * rise);
    const taken = s.specular * (f0 + (1 - f0) * (1 - Math.min(wo[2], wi[2], oh)) ** 5);
    const lost = s.metallic > 0 ? 1 / albedos.metal(s.roughness, wo[2]) - 1 : 0;
    const clear = rough ? (glass * fresnel(oh, eta) * gloss) / kept : 0;
    return s.base.map((b) => s.metallic * gloss * (1 + b * lost) * (b + (1 - b) * rise) + opaque * layer * gloss + (opaque * (1 - taken) * b * wi[2]) / Math.PI + clear) as unknown as Vec3;
  }
  if (glass === 0 || !rough) return [0, 0, 0];
  if (!s.solid) {
    const mirrored: Vec3 = [wi[0], wi[1], -wi[2]];
    const h = normalize([wo[0] + wi[0], wo[1] + wi[1], wo[2] - wi[2]]);
    const through = (glass * (1 - fresnel(dot(wo, h), s.ior)) * distribution(h, alpha)) / ((1 + lambda(wo, alpha) + lambda(mirrored, alpha)) * 4 * wo[2] * kept);
    return scale(s.base, through);
  }
  let h = normalize([-(wo[0] + eta * wi[0]), -(wo[1] + eta * wi[1]), -(wo[2] + eta * wi[2])]);
  if (h[2] < 0) h = scale(h, -1);
  const oh = dot(wo, h);
  const ih = dot(wi, h);
  if (oh <= 0 || ih >= 0) return [0, 0, 0];
  const bend = oh + eta * ih;
  const value = (glass * (1 - fresnel(oh, eta)) * distribution(h, alpha) * oh * -ih) / ((1 + lambda(wo, alpha)) * (1 + lambda(wi, alpha)) * wo[2] * bend * bend * kept);
  return scale(s.base, value);
}

/** A direction with its weight f / pdf, by plain strategies: cosine for the matte part, visible normals for the rest. Null when absorbed. */
export function sampleOpaque(s: SurfaceValues, albedos: Albedos, wo: Vec3, random: Random): { wi: Vec3; weight: Vec3 } | null {
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
