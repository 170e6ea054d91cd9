// Scattering at the surface of surface.ts: glTF's metallic-roughness model and glass, evaluated and sampled in the local
// frame (z = shading normal on the viewer's side; wo to the viewer, wi to the light, both away from the surface, unit).
// Sources: glTF 2.0 specification, appendix B (the mix of metal and dielectric, Schlick's Fresnel, height-correlated Smith);
// Walter et al. 2007 (rough refraction); Heitz 2018, JCGT 7(4) (sampling the visible normals); Turquin 2019 (what single
// scattering loses is given back by scaling with the tabulated directional albedo).
// Limits: the scaling is exact in a furnace and not exactly reciprocal; the layered dielectric loses a little at grazing angles.
import { ALBEDO_STEPS, FLAG_SOLID, GLASS_ROUGH_STEPS, P_METAL_ALBEDO_PTR, PACK } from './layout';
import { cosOut, INV_PI, luminance, sinCosTurns, sinOut } from './math';
import { fresnel } from './fresnel';
import * as surface from './surface';

// Roughness squared at least this: below it D overflows what 24 bits can hold near the mirror direction.
const SMALLEST_ALPHA: f32 = 0.001;
// Glass smoother than this is treated as a perfect mirror and refractor.
const SMOOTH_GLASS: f32 = 0.03;

// Copies of the surface's values: shadow rays read other materials through the same module state while this one is lit.
let baseR: f32 = 0; let baseG: f32 = 0; let baseB: f32 = 0;
let metallic: f32 = 0; let ior: f32 = 1.5; let specular: f32 = 1;
let nx: f32 = 0; let ny: f32 = 0; let nz: f32 = 1;
// viewer, in the local frame
let ox: f32 = 0; let oy: f32 = 0; let oz: f32 = 1;
// frame
let tx: f32 = 1; let ty: f32 = 0; let tz: f32 = 0;
let bx: f32 = 0; let by: f32 = 1; let bz: f32 = 0;
// derived once a surface
let alpha: f32 = 1;
let eta: f32 = 1.5; // index beyond over index here, for solid glass
let solid: bool = false;
let smoothGlass: bool = false;
let f0: f32 = 0.04;
let metalScaleR: f32 = 1; let metalScaleG: f32 = 1; let metalScaleB: f32 = 1;
let glassScale: f32 = 1;
let shareGlass: f32 = 0; // (1 - metallic) transmission
let shareOpaque: f32 = 1; // (1 - metallic)(1 - transmission)
/** Share of the samples that go to glass. */
export let chanceGlass: f32 = 0;
let chanceGloss: f32 = 0;
let chanceMatte: f32 = 0;

/** f times |cos| of the direction evaluated last, and its pdf per solid angle. */
export let fR: f32 = 0; export let fG: f32 = 0; export let fB: f32 = 0; export let pdf: f32 = 0;
/** The direction sampled last, world frame; weight = f |cos| / pdf; delta when it was a perfect mirror or refractor. */
export let wx: f32 = 0; export let wy: f32 = 0; export let wz: f32 = 0;
export let weightR: f32 = 0; export let weightG: f32 = 0; export let weightB: f32 = 0;
export let delta: bool = false;
export let transmitted: bool = false;
/** Whether anything but perfect mirrors and refractors is here, so that sampling lights makes sense. */
export let scatters: bool = true;

function tableAt(table: usize, rows: i32, row: f32, cosine: f32): f32 {
  const r = min<f32>(max<f32>(row, 0), 1) * <f32>(rows - 1), c = min<f32>(max<f32>(cosine, 0), 1) * <f32>(ALBEDO_STEPS - 1);
  const r0 = min<i32>(<i32>r, rows - 2), c0 = min<i32>(<i32>c, ALBEDO_STEPS - 2);
  const fr = r - <f32>r0, fc = c - <f32>c0;
  const p = table + (<usize>(r0 * ALBEDO_STEPS + c0) << 2), q = p + (ALBEDO_STEPS << 2);
  return (load<f32>(p) * (<f32>1 - fc) + load<f32>(p, 4) * fc) * (<f32>1 - fr) + (load<f32>(q) * (<f32>1 - fc) + load<f32>(q, 4) * fc) * fr;
}

/** Prepares for the surface just made, seen from direction (dx, dy, dz) pointing away from it. */
export function beginScattering(dx: f32, dy: f32, dz: f32): void {
  baseR = surface.baseR; baseG = surface.baseG; baseB = surface.baseB;
  metallic = surface.metallic; ior = surface.ior; specular = surface.specular;
  nx = surface.nx; ny = surface.ny; nz = surface.nz;
  const roughness = surface.roughness, transmission = surface.transmission, entering = surface.entering, glassAlbedo = surface.glassAlbedo;
  // frame without a branch at the pole: Duff et al. 2017, JCGT 6(1)
  const sign = copysign<f32>(1, nz), p: f32 = -<f32>1 / (sign + nz), q = nx * ny * p;
  tx = <f32>1 + sign * nx * nx * p; ty = sign * q; tz = -sign * nx;
  bx = q; by = sign + ny * ny * p; bz = -ny;
  ox = tx * dx + ty * dy + tz * dz;
  oy = bx * dx + by * dy + bz * dz;
  oz = max<f32>(nx * dx + ny * dy + nz * dz, <f32>1e-4);

  solid = (surface.flags & FLAG_SOLID) != 0;
  alpha = max<f32>(roughness * roughness, SMALLEST_ALPHA);
  const dielectric = <f32>1 - metallic;
  shareGlass = dielectric * transmission;
  shareOpaque = dielectric * (<f32>1 - transmission);
  smoothGlass = roughness < SMOOTH_GLASS;
  eta = entering ? ior : <f32>1 / ior;
  const root = (ior - 1) / (ior + 1);
  f0 = root * root;

  if (metallic > 0) {
    const kept = tableAt(load<u32>(PACK + P_METAL_ALBEDO_PTR), ALBEDO_STEPS, roughness, oz), lost: f32 = kept > 0 ? (<f32>1 - kept) / kept : 0;
    metalScaleR = <f32>1 + baseR * lost; metalScaleG = <f32>1 + baseG * lost; metalScaleB = <f32>1 + baseB * lost;
  }
  if (shareGlass > 0) {
    if (smoothGlass) glassScale = 1;
    else if (solid && glassAlbedo) glassScale = <f32>1 / tableAt(glassAlbedo + (entering ? 0 : GLASS_ROUGH_STEPS * ALBEDO_STEPS * 4), GLASS_ROUGH_STEPS, roughness, oz);
    else glassScale = <f32>1 / tableAt(load<u32>(PACK + P_METAL_ALBEDO_PTR), ALBEDO_STEPS, roughness, oz);
  }

  const c = <f32>1 - oz, c2 = c * c, rise = c2 * c2 * c;
  const base = luminance(baseR, baseG, baseB);
  const facing = specular * (f0 + (<f32>1 - f0) * rise);
  chanceGlass = shareGlass;
  chanceGloss = metallic * (base + (<f32>1 - base) * rise) + shareOpaque * facing;
  chanceMatte = shareOpaque * (<f32>1 - facing) * base;
  if (chanceMatte + chanceGloss > 0 && chanceGloss < <f32>0.1 * chanceMatte) chanceGloss = <f32>0.1 * chanceMatte; // keeps the grazing sheen from sparkling
  const sum = chanceGlass + chanceGloss + chanceMatte;
  if (sum > 0) { chanceGlass /= sum; chanceGloss /= sum; chanceMatte /= sum; } else { chanceMatte = 1; }
  scatters = !(chanceGlass == 1 && smoothGlass);
}

// GGX with its Smith terms. sin2 comes from x and y, not from 1 - z^2, which cancels near the mirror direction.
// @ts-ignore: decorator
@inline
function ggx(hx: f32, hy: f32, hz: f32): f32 {
  const a2 = alpha * alpha, d = a2 * hz * hz + hx * hx + hy * hy;
  return a2 * INV_PI / (d * d);
}

// @ts-ignore: decorator
@inline
function lambda(z: f32, sin2: f32): f32 {
  return <f32>0.5 * (sqrt<f32>(<f32>1 + alpha * alpha * sin2 / max<f32>(z * z, <f32>1e-12)) - 1);
}

/** Evaluates the non-delta part for a world direction away from the surface into fR, fG, fB (times |cos|) and pdf. */
export function evaluate(x: f32, y: f32, z: f32): void {
  evaluateLocal(tx * x + ty * y + tz * z, bx * x + by * y + bz * z, nx * x + ny * y + nz * z);
}

function evaluateLocal(ix: f32, iy: f32, iz: f32): void {
  fR = 0; fG = 0; fB = 0; pdf = 0;
  if (iz > <f32>1e-5) {
    let hx = ox + ix, hy = oy + iy, hz = oz + iz;
    const length = sqrt<f32>(hx * hx + hy * hy + hz * hz);
    if (length < <f32>1e-12) return;
    hx /= length; hy /= length; hz /= length;
    const oh = max<f32>(ox * hx + oy * hy + oz * hz, <f32>1e-6);
    const d = ggx(hx, hy, hz), lo = lambda(oz, ox * ox + oy * oy), li = lambda(iz, ix * ix + iy * iy);
    const seen = d / ((<f32>1 + lo) * <f32>4 * oz); // density of the reflected direction when visible normals are sampled
    const gloss = d / ((<f32>1 + lo + li) * <f32>4 * oz); // D G2 cos / (4 oz iz)
    const c = <f32>1 - oh, c2 = c * c, rise = c2 * c2 * c;
    const matte = chanceMatte * iz * INV_PI;
    if (chanceGloss > 0 || chanceMatte > 0) {
      const schlick = specular * (f0 + (<f32>1 - f0) * rise);
      // what the layer reflects cannot be scattered below it too: the largest of the three Fresnel factors keeps the sum below 1
      // at grazing angles, where the specification's own mix gains, and is reciprocal
      const ci = <f32>1 - min<f32>(min<f32>(oz, iz), oh), ci2 = ci * ci;
      const taken = specular * (f0 + (<f32>1 - f0) * ci2 * ci2 * ci), diffuse = shareOpaque * (<f32>1 - taken) * iz * INV_PI, sheen = shareOpaque * schlick * gloss, metal = metallic * gloss;
      fR = metal * metalScaleR * (baseR + (<f32>1 - baseR) * rise) + sheen + diffuse * baseR;
      fG = metal * metalScaleG * (baseG + (<f32>1 - baseG) * rise) + sheen + diffuse * baseG;
      fB = metal * metalScaleB * (baseB + (<f32>1 - baseB) * rise) + sheen + diffuse * baseB;
      pdf = chanceGloss * seen + matte;
    }
    if (chanceGlass > 0 && !smoothGlass) {
      const f = fresnel(oh, solid ? eta : ior), g = shareGlass * glassScale * f * gloss;
      fR += g; fG += g; fB += g;
      pdf += chanceGlass * f * seen;
    }
  } else if (iz < <f32>-1e-5 && chanceGlass > 0 && !smoothGlass) {
    if (!solid) {
      // a thin rough sheet blurs without bending: the reflected lobe seen through the sheet
      let hx = ox + ix, hy = oy + iy, hz = oz - iz;
      const length = sqrt<f32>(hx * hx + hy * hy + hz * hz);
      hx /= length; hy /= length; hz /= length;
      const oh = max<f32>(ox * hx + oy * hy + oz * hz, <f32>1e-6);
      const d = ggx(hx, hy, hz), lo = lambda(oz, ox * ox + oy * oy), li = lambda(iz, ix * ix + iy * iy);
      const through = <f32>1 - fresnel(oh, ior), g = shareGlass * glassScale * through * d / ((<f32>1 + lo + li) * <f32>4 * oz);
      fR = g * baseR; fG = g * baseG; fB = g * baseB;
      pdf = chanceGlass * through * d / ((<f32>1 + lo) * <f32>4 * oz);
      return;
    }
    let hx = -(ox + eta * ix), hy = -(oy + eta * iy), hz = -(oz + eta * iz);
    const length = sqrt<f32>(hx * hx + hy * hy + hz * hz);
    if (length < <f32>1e-9) return;
    const turn: f32 = hz < 0 ? -<f32>1 / length : <f32>1 / length;
    hx *= turn; hy *= turn; hz *= turn;
    const oh = ox * hx + oy * hy + oz * hz, ih = ix * hx + iy * hy + iz * hz;
    if (oh <= 0 || ih >= 0) return;
    const d = ggx(hx, hy, hz), lo = lambda(oz, ox * ox + oy * oy), li = lambda(iz, ix * ix + iy * iy);
    const through = <f32>1 - fresnel(oh, eta), bend = oh + eta * ih;
    const jacobian = eta * eta * -ih / (bend * bend);
    const seen = d * oh / ((<f32>1 + lo) * oz);
    pdf = chanceGlass * through * seen * jacobian;
    // radiance is squeezed by the square of the index on the way through
    const g = shareGlass * glassScale * through * seen / (<f32>1 + li) * jacobian / (eta * eta);
    fR = g * baseR; fG = g * baseG; fB = g * baseB;
  }
}

let hX: f32 = 0; let hY: f32 = 0; let hZ: f32 = 1;
/** Heitz 2018, listing 1: a normal visible from wo. */
function sampleNormal(u: f32, v: f32): void {
  let vx = alpha * ox, vy = alpha * oy, vz = oz;
  const inverse: f32 = <f32>1 / sqrt<f32>(vx * vx + vy * vy + vz * vz);
  vx *= inverse; vy *= inverse; vz *= inverse;
  const len2 = vx * vx + vy * vy;
  let ax: f32 = 1, ay: f32 = 0;
  if (len2 > <f32>1e-14) { const k: f32 = <f32>1 / sqrt<f32>(len2); ax = -vy * k; ay = vx * k; }
  const cx = -vz * ay, cy = vz * ax, cz = vx * ay - vy * ax;
  const r = sqrt<f32>(u);
  sinCosTurns(v);
  const t1 = r * cosOut, s: f32 = <f32>0.5 * (<f32>1 + vz);
  const t2 = (<f32>1 - s) * sqrt<f32>(max<f32>(0, <f32>1 - t1 * t1)) + s * r * sinOut;
  const t3 = sqrt<f32>(max<f32>(0, <f32>1 - t1 * t1 - t2 * t2));
  const mx = alpha * (t1 * ax + t2 * cx + t3 * vx), my = alpha * (t1 * ay + t2 * cy + t3 * vy), mz = max<f32>(t2 * cz + t3 * vz, <f32>1e-7);
  const k: f32 = <f32>1 / sqrt<f32>(mx * mx + my * my + mz * mz);
  hX = mx * k; hY = my * k; hZ = mz * k;
}

function finish(x: f32, y: f32, z: f32): void {
  wx = tx * x + bx * y + nx * z; wy = ty * x + by * y + ny * z; wz = tz * x + bz * y + nz * z;
  const k: f32 = <f32>1 / sqrt<f32>(wx * wx + wy * wy + wz * wz);
  wx *= k; wy *= k; wz *= k;
}

/** Samples a direction: `choice` picks the lobe, (u, v) the direction within it. False when nothing was scattered. */
export function sample(choice: f32, u: f32, v: f32): bool {
  delta = false; transmitted = false;
  if (choice < chanceGlass) {
    if (smoothGlass) return samplePerfect(choice / chanceGlass);
    sampleNormal(u, v);
    const oh = ox * hX + oy * hY + oz * hZ;
    if (oh <= 0) return false;
    const f = fresnel(oh, solid ? eta : ior);
    let x = <f32>2 * oh * hX - ox, y = <f32>2 * oh * hY - oy, z = <f32>2 * oh * hZ - oz;
    if (choice >= chanceGlass * f) {
      transmitted = true;
      if (!solid) z = -z;
      else {
        const inverse: f32 = <f32>1 / eta, t2 = <f32>1 - inverse * inverse * (<f32>1 - oh * oh);
        if (t2 <= 0) return false;
        const k = inverse * oh - sqrt<f32>(t2);
        x = k * hX - inverse * ox; y = k * hY - inverse * oy; z = k * hZ - inverse * oz;
      }
      if (z >= 0) return false;
    } else if (z <= 0) return false;
    evaluateLocal(x, y, z);
    finish(x, y, z);
  } else if (choice < chanceGlass + chanceGloss) {
    sampleNormal(u, v);
    const oh = ox * hX + oy * hY + oz * hZ;
    const x = <f32>2 * oh * hX - ox, y = <f32>2 * oh * hY - oy, z = <f32>2 * oh * hZ - oz;
    if (z <= 0) return false;
    evaluateLocal(x, y, z);
    finish(x, y, z);
  } else {
    const r = sqrt<f32>(u);
    sinCosTurns(v);
    const x = r * cosOut, y = r * sinOut, z = sqrt<f32>(max<f32>(0, <f32>1 - u));
    evaluateLocal(x, y, z);
    finish(x, y, z);
  }
  if (!(pdf > <f32>1e-12)) return false;
  const k: f32 = <f32>1 / pdf;
  weightR = fR * k; weightG = fG * k; weightB = fB * k;
  return true;
}

/** Smooth glass: Fresnel decides between the mirror direction and the refracted or, in a thin sheet, the straight one. */
function samplePerfect(choice: f32): bool {
  delta = true;
  const k: f32 = shareGlass / chanceGlass;
  const f = fresnel(oz, solid ? eta : ior);
  if (choice < f) {
    finish(-ox, -oy, oz);
    weightR = k; weightG = k; weightB = k;
    return true;
  }
  transmitted = true;
  let squeeze: f32 = 1;
  if (!solid) finish(-ox, -oy, -oz);
  else {
    const inverse: f32 = <f32>1 / eta, t2 = <f32>1 - inverse * inverse * (<f32>1 - oz * oz);
    if (t2 <= 0) return false;
    finish(-inverse * ox, -inverse * oy, -sqrt<f32>(t2));
    squeeze = inverse * inverse;
  }
  weightR = k * baseR * squeeze; weightG = k * baseG * squeeze; weightB = k * baseB * squeeze;
  return true;
}
