/**
 * The GGX distribution of microfacet normals, Smith's shadowing with it, and sampling of visible normals.
 * Local frame, z the surface normal; alpha = roughness squared, along x and along y. Sources: Walter et al. 2007; Heitz
 * 2014, JCGT 3(2), eq. 72 and 99, anisotropic 85 and 86; Heitz 2018, JCGT 7(4), listing 1.
 */
import type { Vec3 } from '../math/vec3';

export function distribution(h: Vec3, alpha: number, alphaY = alpha): number {
  const stretched = (h[0] / alpha) ** 2 + (h[1] / alphaY) ** 2 + h[2] ** 2;
  return 1 / (Math.PI * alpha * alphaY * stretched * stretched);
}

export function lambda(w: Vec3, alpha: number, alphaY = alpha): number {
  const tan2 = ((alpha * w[0]) ** 2 + (alphaY * w[1]) ** 2) / Math.max(w[2] * w[2], 1e-12);
  return 0.5 * (Math.sqrt(1 + tan2) - 1);
}

export function sampleVisibleNormal(wo: Vec3, alpha: number, u: number, v: number): Vec3 {
  const size = Math.hypot(alpha * wo[0], alpha * wo[1], wo[2]);
  const vx = (alpha * wo[0]) / size;
  const vy = (alpha * wo[1]) / size;
  const vz = wo[2] / size;
  const flat = Math.hypot(vx, vy);
  const a: Vec3 = flat > 1e-7 ? [-vy / flat, vx / flat, 0] : [1, 0, 0];
  const c: Vec3 = [-vz * a[1], vz * a[0], vx * a[1] - vy * a[0]];
  const r = Math.sqrt(u);
  const t1 = r * Math.cos(2 * Math.PI * v);
  const s = 0.5 * (1 + vz);
  const t2 = (1 - s) * Math.sqrt(Math.max(0, 1 - t1 * t1)) + s * r * Math.sin(2 * Math.PI * v);
  const t3 = Math.sqrt(Math.max(0, 1 - t1 * t1 - t2 * t2));
  const x = alpha * (t1 * a[0] + t2 * c[0] + t3 * vx);
  const y = alpha * (t1 * a[1] + t2 * c[1] + t3 * vy);
  const z = Math.max(1e-7, t2 * c[2] + t3 * vz);
  const k = 1 / Math.hypot(x, y, z);
  return [x * k, y * k, z * k];
}
