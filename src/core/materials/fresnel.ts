/**
 * Fresnel reflectance of a dielectric at cosine `c`, unpolarised; `eta` is the index beyond over the index here. Born
 * and Wolf, section 1.5.2.
 */
export function fresnel(c: number, eta: number): number {
  const sin2 = (1 - c * c) / (eta * eta);
  if (sin2 >= 1) return 1;
  const t = Math.sqrt(1 - sin2);
  const p = (eta * c - t) / (eta * c + t);
  const s = (c - eta * t) / (c + eta * t);
  return 0.5 * (p * p + s * s);
}

/** Schlick 1994, as glTF 2.0 writes it (appendix B.3.2). */
export const schlick = (f0: number, c: number): number => f0 + (1 - f0) * (1 - c) ** 5;
