// Reflectance of a thin film on a base, as core/materials/iridescence.ts has it in double precision, where the sources
// stand.
import { cosOut, exp, PI, sinCosTurns } from './math';

export let filmR: f32 = 0;
export let filmG: f32 = 0;
export let filmB: f32 = 0;

let x: f32 = 0;
let y: f32 = 0;
let z: f32 = 0;

// value sqrt(2 pi width) / 1.0685e-7, place, width; phase in 1/nm
// @ts-ignore: decorator
@inline
function gauss(weight: f32, place: f32, width: f32, path: f32, shift: f32): f32 {
  // turns = (place * 2 pi path 1e-9 + shift) / 2 pi
  sinCosTurns(place * path * <f32>1e-9 + shift * <f32>0.159154943);
  const phase = path * <f32>6.28318530718e-9;
  return weight * cosOut * exp(-phase * phase * width);
}

function sensitivity(path: f32, shiftR: f32, shiftG: f32, shiftB: f32): void {
  // weights: value * sqrt(2 pi width) / 1.0685e-7
  const sx =
    gauss(<f32>0.84659, <f32>1.681e6, <f32>4.3278e9, path, shiftR) +
    gauss(<f32>0.1538683, <f32>2.2399e6, <f32>4.5282e9, path, shiftR);
  const sy = gauss(<f32>1.0002219, <f32>1.7953e6, <f32>9.3046e9, path, shiftG);
  const sz = gauss(<f32>1.0011225, <f32>2.2084e6, <f32>6.6121e9, path, shiftB);
  x = <f32>3.2404542 * sx - <f32>1.5371385 * sy - <f32>0.4985314 * sz;
  y = <f32>-0.969266 * sx + <f32>1.8760108 * sy + <f32>0.041556 * sz;
  z = <f32>0.0556434 * sx - <f32>0.2040259 * sy + <f32>1.0572252 * sz;
}

let phi: f32 = 0;
let root: f32 = 0;
let sum: f32 = 0;
let term: f32 = 0;
function layer(f0: f32, ior: f32, r12: f32, t121: f32, inside: f32, phi21: f32): void {
  const s = sqrt<f32>(min<f32>(max<f32>(f0, 0), <f32>0.9999)),
    base = (<f32>1 + s) / (<f32>1 - s);
  const q = (base - ior) / (base + ior),
    c = <f32>1 - inside,
    c2 = c * c,
    r1 = q * q;
  const r23 = r1 + (<f32>1 - r1) * c2 * c2 * c,
    r123 = min<f32>(max<f32>(r12 * r23, <f32>1e-5), <f32>0.9999);
  const rs = (t121 * t121 * r23) / (<f32>1 - r123);
  phi = phi21 + (base < ior ? PI : 0);
  root = sqrt<f32>(r123);
  sum = r12 + rs;
  term = rs - t121;
}

/**
 * Reflectance at `cosine` of a film of an index and a thickness in nm over a base of F0 (r, g, b), into filmR, filmG,
 * filmB.
 */
export function filmReflectance(cosine: f32, filmIor: f32, thickness: f32, r: f32, g: f32, b: f32): void {
  const t = min<f32>(max<f32>(thickness / <f32>0.03, 0), 1),
    ior: f32 = <f32>1 + (filmIor - 1) * t * t * (<f32>3 - 2 * t);
  const inside2: f32 = <f32>1 - (<f32>1 - cosine * cosine) / (ior * ior);
  if (inside2 < 0) {
    filmR = 1;
    filmG = 1;
    filmB = 1;
    return;
  }
  const inside = sqrt<f32>(inside2),
    q = (ior - 1) / (ior + 1),
    r0 = q * q,
    c = <f32>1 - cosine,
    c2 = c * c;
  const r12 = r0 + (<f32>1 - r0) * c2 * c2 * c,
    t121: f32 = <f32>1 - r12,
    phi21: f32 = ior < 1 ? 0 : PI;
  layer(r, ior, r12, t121, inside, phi21);
  const phiR = phi,
    rootR = root,
    sumR = sum,
    termR = term * root;
  layer(g, ior, r12, t121, inside, phi21);
  const phiG = phi,
    rootG = root,
    sumG = sum,
    termG = term * root;
  layer(b, ior, r12, t121, inside, phi21);
  const phiB = phi,
    rootB = root,
    sumB = sum,
    termB = term * root;
  const path: f32 = 2 * ior * thickness * inside;
  sensitivity(path, phiR, phiG, phiB);
  filmR = sumR + 2 * termR * x;
  filmG = sumG + 2 * termG * y;
  filmB = sumB + 2 * termB * z;
  sensitivity(2 * path, 2 * phiR, 2 * phiG, 2 * phiB);
  filmR = min<f32>(max<f32>(filmR + 2 * termR * rootR * x, 0), 1);
  filmG = min<f32>(max<f32>(filmG + 2 * termG * rootG * y, 0), 1);
  filmB = min<f32>(max<f32>(filmB + 2 * termB * rootB * z, 0), 1);
}
