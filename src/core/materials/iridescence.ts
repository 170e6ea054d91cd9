/**
 * Reflectance of a thin film on a base, in linear Rec. 709. Source: Belcour and Barla 2017, A Practical Extension to
 * Microfacet Theory for the Modeling of Varying Iridescence, with the Gaussian fits of the sensitivities that the
 * specification of KHR_materials_iridescence prints (fit constants from memory; checked against the integral over the
 * spectrum in the test).
 */
import type { Vec3 } from '../math/vec3';

const VALUE: Vec3 = [5.4856e-13, 4.4201e-13, 5.2481e-13];
const PLACE: Vec3 = [1.681e6, 1.7953e6, 2.2084e6];
const WIDTH: Vec3 = [4.3278e9, 9.3046e9, 6.6121e9];

/** Spectral sensitivity at an optical path difference in nm, with a phase shift a channel; xyz to Rec. 709 included. */
function sensitivity(path_nm: number, shift: Vec3): Vec3 {
  const phase = 2 * Math.PI * path_nm * 1e-9;
  const gauss = (v: number, p: number, w: number, s: number) =>
    v * Math.sqrt(2 * Math.PI * w) * Math.cos(p * phase + s) * Math.exp(-phase * phase * w);
  const x = gauss(VALUE[0], PLACE[0], WIDTH[0], shift[0]) + gauss(9.747e-14, 2.2399e6, 4.5282e9, shift[0]);
  const y = gauss(VALUE[1], PLACE[1], WIDTH[1], shift[1]);
  const z = gauss(VALUE[2], PLACE[2], WIDTH[2], shift[2]);
  const k = 1 / 1.0685e-7;
  return [
    (3.2404542 * x - 1.5371385 * y - 0.4985314 * z) * k,
    (-0.969266 * x + 1.8760108 * y + 0.041556 * z) * k,
    (0.0556434 * x - 0.2040259 * y + 1.0572252 * z) * k
  ];
}

const f0Of = (beyond: number, here: number) => ((beyond - here) / (beyond + here)) ** 2;
const schlick = (f0: number, c: number) => f0 + (1 - f0) * (1 - c) ** 5;

/** `cosine` outside, film index and thickness in nm, F0 of the base a channel. */
export function filmReflectance(cosine: number, filmIor: number, thickness_nm: number, baseF0: Vec3): Vec3 {
  // a vanishing film must be as if it were not there
  const t = Math.min(1, Math.max(0, thickness_nm / 0.03));
  const ior = 1 + (filmIor - 1) * t * t * (3 - 2 * t);
  const inside2 = 1 - (1 - cosine * cosine) / (ior * ior);
  if (inside2 < 0) return [1, 1, 1];
  const inside = Math.sqrt(inside2);
  const r12 = schlick(f0Of(ior, 1), cosine);
  const t121 = 1 - r12;
  const phi21 = Math.PI - (ior < 1 ? Math.PI : 0);
  const channel = [0, 1, 2].map((c) => {
    const root = Math.sqrt(Math.min(0.9999, Math.max(0, baseF0[c]!)));
    const baseIor = (1 + root) / (1 - root);
    const r23 = schlick(f0Of(baseIor, ior), inside);
    const r123 = Math.min(0.9999, Math.max(1e-5, r12 * r23));
    const rs = (t121 * t121 * r23) / (1 - r123);
    return { phi: phi21 + (baseIor < ior ? Math.PI : 0), root: Math.sqrt(r123), sum: r12 + rs, term: rs - t121 };
  });
  const path = 2 * ior * thickness_nm * inside;
  for (let m = 1; m <= 2; m++) {
    const s = sensitivity(m * path, [m * channel[0]!.phi, m * channel[1]!.phi, m * channel[2]!.phi]);
    channel.forEach((v, c) => {
      v.term *= v.root;
      v.sum += v.term * 2 * s[c]!;
    });
  }
  return channel.map((v) => Math.min(1, Math.max(0, v.sum))) as unknown as Vec3;
}
