/**
 * A coarse visible spectrum for the sun and the sky: SAMPLES bands of BAND_NM from 400 to 700 nm.
 * Colour matching: Wyman, Sloan and Shirley 2013, Simple Analytic Approximations to the CIE XYZ Color Matching
 * Functions (JCGT 2(2)), the multi-lobe fit of the 1931 observer, coefficients from memory of that paper; held by the
 * white-point tests.
 */
import type { Vec3 } from '../math/vec3';

export const BAND_NM = 20;
export const SAMPLES = 16;
export const WAVELENGTHS_NM = Array.from({ length: SAMPLES }, (_, i) => 400 + BAND_NM * i);
/** Lumens in a watt at the eye's best wavelength, by definition of the candela. */
export const LUMENS_PER_WATT = 683;

const lobe = (nm: number, centre: number, below: number, above: number) => {
  const t = (nm - centre) / (nm < centre ? below : above);
  return Math.exp(-0.5 * t * t);
};

export function colorMatching(nm: number): Vec3 {
  return [
    1.056 * lobe(nm, 599.8, 37.9, 31.0) + 0.362 * lobe(nm, 442.0, 16.0, 26.7) - 0.065 * lobe(nm, 501.1, 20.4, 26.2),
    0.821 * lobe(nm, 568.8, 46.9, 40.5) + 0.286 * lobe(nm, 530.9, 16.3, 31.1),
    1.217 * lobe(nm, 437.0, 11.8, 36.0) + 0.681 * lobe(nm, 459.0, 26.0, 13.8)
  ];
}

const MATCHING = WAVELENGTHS_NM.map(colorMatching);

/** XYZ in photometric units (Y in cd/m2 or lx) of spectral radiance or irradiance per nm. */
export function spectrumToXyz(spectrum: ArrayLike<number>): Vec3 {
  let x = 0;
  let y = 0;
  let z = 0;
  for (let i = 0; i < SAMPLES; i++) {
    x += spectrum[i]! * MATCHING[i]![0];
    y += spectrum[i]! * MATCHING[i]![1];
    z += spectrum[i]! * MATCHING[i]![2];
  }
  const k = LUMENS_PER_WATT * BAND_NM;
  return [x * k, y * k, z * k];
}

/** Relative spectral radiance of a black body. Source: Planck's law with c2 = 1.4388e-2 m K (CIE 15). */
export function planck(nm: number, kelvin: number): number {
  const metres = nm * 1e-9;
  return 1 / (metres ** 5 * (Math.exp(1.4388e-2 / (metres * kelvin)) - 1));
}

/**
 * Correlated colour temperature of a chromaticity. Source: McCamy 1992; good to a few kelvin from 2,000 to 12,500 K.
 */
export function correlatedKelvin([x, y, z]: Vec3): number {
  const sum = x + y + z;
  const n = (x / sum - 0.332) / (y / sum - 0.1858);
  return -449 * n ** 3 + 3525 * n ** 2 - 6823.3 * n + 5520.33;
}
