// Fresnel reflectance of a dielectric, unpolarised. Source: Born and Wolf, Principles of Optics, section 1.5.2.

/** Reflectance at cosine `c` (0 to 1) on the side of incidence; `eta` is the index beyond over the index here. */
export function fresnel(c: f32, eta: f32): f32 {
  const sin2 = (<f32>1 - c * c) / (eta * eta);
  if (sin2 >= 1) return 1;
  const t = sqrt<f32>(<f32>1 - sin2);
  const p = (eta * c - t) / (eta * c + t),
    s = (c - eta * t) / (c + eta * t);
  return <f32>0.5 * (p * p + s * s);
}
