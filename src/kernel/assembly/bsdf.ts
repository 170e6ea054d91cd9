// Scattering at the surface of surface.ts: glTF's metallic-roughness model, glass, and the layers that extensions put
// on them, evaluated and sampled in the local frame (z = shading normal on the viewer's side; wo to the viewer, wi to
// the light, both away from the surface, unit).
// From the top: coat (a clear dielectric of index 1.5 with its own normal), sheen, then metal, glass and the matte
// layer under a dielectric reflection. A layer lets through what it does not return, on the way in or out, whichever is
// less: reciprocal, never more than 1, and a little dark at grazing angles.
// Sources: glTF 2.0 specification, appendix B, and its material extensions; Walter et al. 2007 (rough refraction);
// Heitz 2018, JCGT 7(4); Turquin 2019 (what single scattering loses is given back by scaling with the tabulated
// directional albedo); Estevez and Kulla 2017 (sheen and its albedo scaling); Belcour and Barla 2017 (thin films).
// Limits: the scaling is exact in a furnace (brushed: within 1 %) and not exactly reciprocal; the film's colour is that
// of the viewer's angle; a coat does not dim what glows below it.
// One file and long, because all lobes share what is derived once a surface, and evaluating and sampling must change
// together.
import {
  ALBEDO_STEPS,
  FLAG_LAYERED,
  FLAG_SOLID,
  GLASS_ROUGH_STEPS,
  P_METAL_ALBEDO_PTR,
  P_SHEEN_ALBEDO_PTR,
  PACK
} from './layout';
import { cosOut, INV_PI, luminance, max3, sinCosTurns, sinOut } from './math';
import { fresnel } from './fresnel';
import { distribution, hX, hY, hZ, lambda, sampleNormal } from './ggx';
import { beginSheen, evaluateSheen } from './sheen';
import * as surface from './surface';
import { filmB, filmG, filmR, filmReflectance } from './thin-film';

// Roughness squared at least this: below it D overflows what 24 bits can hold near the mirror direction.
const SMALLEST_ALPHA: f32 = 0.001;
const SMALLEST_SHEEN_ROUGHNESS: f32 = 0.1;
// Glass smoother than this is treated as a perfect mirror and refractor.
const SMOOTH_GLASS: f32 = 0.03;
const COAT_F0: f32 = 0.04;

// Copies of the surface's values: shadow rays read other materials through the same module state while this one is lit.
let baseR: f32 = 0;
let baseG: f32 = 0;
let baseB: f32 = 0;
let metallic: f32 = 0;
let ior: f32 = 1.5;
let specular: f32 = 1;
export let nx: f32 = 0;
export let ny: f32 = 0;
export let nz: f32 = 1;
// viewer, in the local frame
let ox: f32 = 0;
let oy: f32 = 0;
let oz: f32 = 1;
// frame
let tx: f32 = 1;
let ty: f32 = 0;
let tz: f32 = 0;
let bx: f32 = 0;
let by: f32 = 1;
let bz: f32 = 0;
// derived once a surface
let alpha: f32 = 1; // of glass, and of the rest when nothing is brushed
let ax: f32 = 1;
let ay: f32 = 1;
let maskO: f32 = 1;
let seenO: f32 = 0.25; // 1 + lambda of the viewer; one over that and 4 oz
let eta: f32 = 1.5; // index beyond over index here, for solid glass
let solid: bool = false;
let smoothGlass: bool = false;
let f0R: f32 = 0.04;
let f0G: f32 = 0.04;
let f0B: f32 = 0.04; // of the dielectric
let metalR: f32 = 1;
let metalG: f32 = 1;
let metalB: f32 = 1; // F0 of the metal
let metalScaleR: f32 = 1;
let metalScaleG: f32 = 1;
let metalScaleB: f32 = 1;
let glassScale: f32 = 1;
let shareGlass: f32 = 0; // (1 - metallic) transmission
let shareOpaque: f32 = 1; // (1 - metallic)(1 - transmission)
let layered: bool = false;
let coat: f32 = 0;
let coatAlpha: f32 = 0;
let coatX: f32 = 0;
let coatY: f32 = 0;
let coatZ: f32 = 1;
let coatO: f32 = 1; // its normal in the local frame, cosine of the viewer with it
let sheenR: f32 = 0;
let sheenG: f32 = 0;
let sheenB: f32 = 0;
/** Place in the table of albedos, 0 to 1. */
let sheenRow: f32 = 0;
let sheenMost: f32 = 0;
let sheenAlbedoO: f32 = 0;
let through: f32 = 0;
let throughR: f32 = 1;
let throughG: f32 = 1;
let throughB: f32 = 1; // light that the matte layer scatters to the other side
let probabilityGloss: f32 = 0;
let probabilityMatte: f32 = 0;
let probabilityCoat: f32 = 0;
let probabilitySheen: f32 = 0;
/** Share of the samples that go to glass. */
export let probabilityGlass: f32 = 0;

/** f times |cos| of the direction evaluated last, and its pdf per solid angle. */
export let fR: f32 = 0;
export let fG: f32 = 0;
export let fB: f32 = 0;
export let pdf: f32 = 0;
/** The direction sampled last, world frame; weight = f |cos| / pdf; delta when it was a perfect mirror or refractor. */
export let wx: f32 = 0;
export let wy: f32 = 0;
export let wz: f32 = 0;
export let weightR: f32 = 0;
export let weightG: f32 = 0;
export let weightB: f32 = 0;
export let delta: bool = false;
export let transmitted: bool = false;
/** Kind of the scattering sampled last. */
export const DIFFUSE: i32 = 0;
export const GLOSS: i32 = 1;
export const GLASS: i32 = 2;
export let kind: i32 = 0;
/** Whether anything but perfect mirrors and refractors is here, so that sampling lights makes sense. */
export let scatters: bool = true;
/** Whether light from behind matters here. */
export let lightFromBehind: bool = false;

function tableAt(table: usize, rows: i32, row: f32, cosine: f32): f32 {
  const r = min<f32>(max<f32>(row, 0), 1) * <f32>(rows - 1),
    c = sqrt<f32>(min<f32>(max<f32>(cosine, 0), 1)) * <f32>(ALBEDO_STEPS - 1);
  const r0 = min<i32>(<i32>r, rows - 2),
    c0 = min<i32>(<i32>c, ALBEDO_STEPS - 2);
  const fr = r - <f32>r0,
    fc = c - <f32>c0;
  const p = table + ((<usize>(r0 * ALBEDO_STEPS + c0)) << 2),
    q = p + (ALBEDO_STEPS << 2);
  return (
    (load<f32>(p) * (<f32>1 - fc) + load<f32>(p, 4) * fc) * (<f32>1 - fr) +
    (load<f32>(q) * (<f32>1 - fc) + load<f32>(q, 4) * fc) * fr
  );
}

// @ts-ignore: decorator
@inline
function fifth(c: f32): f32 {
  const c2 = c * c;
  return c2 * c2 * c;
}

/**
 * Prepares for the surface just made, seen from direction (dx, dy, dz) pointing away from it. `channel` is the one that
 * a path through dispersing glass has chosen (0 red, 1 green, 2 blue), -1 before.
 */
export function prepareBsdf(dx: f32, dy: f32, dz: f32, channel: i32): void {
  baseR = surface.baseR;
  baseG = surface.baseG;
  baseB = surface.baseB;
  metallic = surface.metallic;
  ior = surface.ior;
  specular = surface.specular;
  nx = surface.nx;
  ny = surface.ny;
  nz = surface.nz;
  const roughness = surface.roughness,
    transmission = surface.transmission,
    entering = surface.entering,
    glassAlbedo = surface.glassAlbedo;
  layered = (surface.flags & FLAG_LAYERED) != 0;
  const brushed = layered && surface.anisotropy > 0;
  if (brushed) {
    const along = surface.tangentX * nx + surface.tangentY * ny + surface.tangentZ * nz;
    tx = surface.tangentX - along * nx;
    ty = surface.tangentY - along * ny;
    tz = surface.tangentZ - along * nz;
    const k: f32 = <f32>1 / max<f32>(sqrt<f32>(tx * tx + ty * ty + tz * tz), <f32>1e-12);
    tx *= k;
    ty *= k;
    tz *= k;
    bx = ny * tz - nz * ty;
    by = nz * tx - nx * tz;
    bz = nx * ty - ny * tx;
  } else {
    // frame without a branch at the pole: Duff et al. 2017, JCGT 6(1)
    const sign = copysign<f32>(1, nz),
      p: f32 = -(<f32>1) / (sign + nz),
      q = nx * ny * p;
    tx = <f32>1 + sign * nx * nx * p;
    ty = sign * q;
    tz = -sign * nx;
    bx = q;
    by = sign + ny * ny * p;
    bz = -ny;
  }
  ox = tx * dx + ty * dy + tz * dz;
  oy = bx * dx + by * dy + bz * dz;
  oz = max<f32>(nx * dx + ny * dy + nz * dz, <f32>1e-4);

  solid = (surface.flags & FLAG_SOLID) != 0;
  alpha = max<f32>(roughness * roughness, SMALLEST_ALPHA);
  ax = alpha;
  ay = alpha;
  const dielectric = <f32>1 - metallic;
  shareGlass = dielectric * transmission;
  shareOpaque = dielectric * (<f32>1 - transmission);
  smoothGlass = roughness < SMOOTH_GLASS;
  const root = (ior - 1) / (ior + 1),
    f0 = root * root;
  f0R = f0;
  f0G = f0;
  f0B = f0;
  metalR = baseR;
  metalG = baseG;
  metalB = baseB;
  through = 0;
  if (layered) beginLayers(dx, dy, dz, f0, roughness, channel);
  eta = entering ? ior : <f32>1 / ior;
  maskO = <f32>1 + lambda(ox, oy, oz, ax, ay);
  seenO = <f32>1 / (maskO * <f32>4 * oz);

  if (metallic > 0) {
    const kept = tableAt(
        load<u32>(PACK + P_METAL_ALBEDO_PTR),
        ALBEDO_STEPS,
        brushed ? sqrt<f32>(sqrt<f32>(ax * ay)) : roughness,
        oz
      ),
      lost: f32 = kept > 0 ? (<f32>1 - kept) / kept : 0;
    metalScaleR = <f32>1 + metalR * lost;
    metalScaleG = <f32>1 + metalG * lost;
    metalScaleB = <f32>1 + metalB * lost;
  }
  if (shareGlass > 0) {
    if (smoothGlass) glassScale = 1;
    else if (solid && glassAlbedo)
      glassScale =
        <f32>1 /
        tableAt(glassAlbedo + (entering ? 0 : GLASS_ROUGH_STEPS * ALBEDO_STEPS * 4), GLASS_ROUGH_STEPS, roughness, oz);
    else glassScale = <f32>1 / tableAt(load<u32>(PACK + P_METAL_ALBEDO_PTR), ALBEDO_STEPS, roughness, oz);
  }

  const rise = fifth(<f32>1 - oz);
  const base = luminance(baseR, baseG, baseB),
    metal = luminance(metalR, metalG, metalB),
    below = (<f32>1 - through) * base + through * luminance(throughR, throughG, throughB);
  const f0Mean = luminance(f0R, f0G, f0B),
    facing = specular * (f0Mean + (<f32>1 - f0Mean) * rise);
  probabilityGlass = shareGlass;
  probabilityGloss = metallic * (metal + (<f32>1 - metal) * rise) + shareOpaque * facing;
  probabilityMatte = shareOpaque * (<f32>1 - facing) * below;
  // keeps the grazing sheen from sparkling
  if (probabilityMatte + probabilityGloss > 0 && probabilityGloss < <f32>0.1 * probabilityMatte)
    probabilityGloss = <f32>0.1 * probabilityMatte;
  let sum = probabilityGlass + probabilityGloss + probabilityMatte;
  probabilityCoat = 0;
  probabilitySheen = 0;
  if (layered) {
    if (coat > 0)
      probabilityCoat = max<f32>(
        coat * (COAT_F0 + (<f32>1 - COAT_F0) * fifth(<f32>1 - coatO)),
        <f32>0.1 * min<f32>(coat, sum)
      );
    if (sheenMost > 0) probabilitySheen = max<f32>(<f32>1 - sheenKeep(sheenAlbedoO), <f32>0.05);
    sum += probabilityCoat + probabilitySheen;
  }
  if (sum > 0) {
    const k: f32 = <f32>1 / sum;
    probabilityGlass *= k;
    probabilityGloss *= k;
    probabilityMatte *= k;
    probabilityCoat *= k;
    probabilitySheen *= k;
  } else probabilityMatte = 1;
  scatters = !(probabilityGlass == 1 && smoothGlass);
  lightFromBehind = probabilityGlass > 0 || through > 0;
}

function beginLayers(dx: f32, dy: f32, dz: f32, f0: f32, roughness: f32, channel: i32): void {
  f0R = min<f32>(f0 * surface.specularR, 1);
  f0G = min<f32>(f0 * surface.specularG, 1);
  f0B = min<f32>(f0 * surface.specularB, 1);
  if (surface.anisotropy > 0) {
    // KHR_materials_anisotropy: rougher along the tangent
    ax = alpha + (<f32>1 - alpha) * surface.anisotropy * surface.anisotropy;
    ay = alpha;
  }
  if (surface.iridescence > 0) {
    const rise = fifth(<f32>1 - oz),
      k = surface.iridescence;
    const flat: f32 = <f32>1 / max<f32>(<f32>1 - rise, <f32>1e-3); // back from the reflectance at this angle to that at right angles
    if (shareOpaque > 0) {
      filmReflectance(oz, surface.filmIor, surface.filmThickness, f0R, f0G, f0B);
      f0R += k * (min<f32>(max<f32>((filmR - rise) * flat, 0), 1) - f0R);
      f0G += k * (min<f32>(max<f32>((filmG - rise) * flat, 0), 1) - f0G);
      f0B += k * (min<f32>(max<f32>((filmB - rise) * flat, 0), 1) - f0B);
    }
    if (metallic > 0) {
      filmReflectance(oz, surface.filmIor, surface.filmThickness, baseR, baseG, baseB);
      metalR += k * (min<f32>(max<f32>((filmR - rise) * flat, 0), 1) - metalR);
      metalG += k * (min<f32>(max<f32>((filmG - rise) * flat, 0), 1) - metalG);
      metalB += k * (min<f32>(max<f32>((filmB - rise) * flat, 0), 1) - metalB);
    }
  }
  // KHR_materials_dispersion: half the spread of the index, by channel
  if (channel >= 0 && surface.dispersion > 0) ior += <f32>(channel - 1) * (ior - 1) * <f32>0.025 * surface.dispersion;
  if (!solid) {
    through = surface.diffuseTransmission;
    throughR = surface.throughR;
    throughG = surface.throughG;
    throughB = surface.throughB;
  }
  coat = surface.coat;
  if (coat > 0) {
    coatAlpha = max<f32>(surface.coatRoughness * surface.coatRoughness, SMALLEST_ALPHA);
    coatX = tx * surface.coatX + ty * surface.coatY + tz * surface.coatZ;
    coatY = bx * surface.coatX + by * surface.coatY + bz * surface.coatZ;
    coatZ = nx * surface.coatX + ny * surface.coatY + nz * surface.coatZ;
    coatO = max<f32>(surface.coatX * dx + surface.coatY * dy + surface.coatZ * dz, <f32>1e-4);
  }
  sheenR = surface.sheenR;
  sheenG = surface.sheenG;
  sheenB = surface.sheenB;
  sheenMost = max3(sheenR, sheenG, sheenB);
  sheenAlbedoO = 0;
  if (sheenMost > 0) {
    const rough = max<f32>(surface.sheenRoughness, SMALLEST_SHEEN_ROUGHNESS);
    sheenRow = (rough - SMALLEST_SHEEN_ROUGHNESS) / (<f32>1 - SMALLEST_SHEEN_ROUGHNESS);
    beginSheen(rough * rough, oz);
    sheenAlbedoO = sheenAlbedo(oz);
  }
}

/** Evaluates the non-delta part for a world direction away from the surface into fR, fG, fB (times |cos|) and pdf. */
export function evaluate(x: f32, y: f32, z: f32): void {
  const z0 = nx * x + ny * y + nz * z;
  transmitted = z0 < 0;
  evaluateLocal(tx * x + ty * y + tz * z, bx * x + by * y + bz * z, z0);
}

let matte: f32 = 0; // of the value evaluated last, before layers above dim it

/** Share of the value evaluated last that the matte layer scatters, about: layers over it are left out. */
export function matteShare(): f32 {
  const all = luminance(fR, fG, fB),
    own = transmitted ? luminance(throughR, throughG, throughB) : luminance(baseR, baseG, baseB);
  return all > 0 ? min<f32>(<f32>1, (matte * own) / all) : 0;
}

function evaluateLocal(ix: f32, iy: f32, iz: f32): void {
  fR = 0;
  fG = 0;
  fB = 0;
  pdf = 0;
  matte = 0;
  if (iz > <f32>1e-5) {
    let hx = ox + ix,
      hy = oy + iy,
      hz = oz + iz;
    const length = sqrt<f32>(hx * hx + hy * hy + hz * hz);
    if (length < <f32>1e-12) return;
    const inverse: f32 = <f32>1 / length;
    hx *= inverse;
    hy *= inverse;
    hz *= inverse;
    const oh = max<f32>(ox * hx + oy * hy + oz * hz, <f32>1e-6);
    const d = distribution(hx, hy, hz, ax, ay),
      li = lambda(ix, iy, iz, ax, ay);
    const seen = d * seenO; // density of the reflected direction when visible normals are sampled
    const gloss = d / ((maskO + li) * <f32>4 * oz); // D G2 cos / (4 oz iz)
    const rise = fifth(<f32>1 - oh);
    if (probabilityGloss > 0 || probabilityMatte > 0) {
      // what the layer reflects cannot be scattered below it too: the largest of the three Fresnel factors keeps the
      // sum below 1 at grazing angles, where the specification's own mix gains, and is reciprocal
      const f0Most = max3(f0R, f0G, f0B),
        taken = specular * (f0Most + (<f32>1 - f0Most) * fifth(<f32>1 - min<f32>(min<f32>(oz, iz), oh)));
      const diffuse = shareOpaque * (<f32>1 - through) * (<f32>1 - taken) * iz * INV_PI,
        dielectric = shareOpaque * specular * gloss,
        metal = metallic * gloss,
        flat: f32 = <f32>1 - rise;
      fR =
        metal * metalScaleR * (metalR + (<f32>1 - metalR) * rise) + dielectric * (f0R * flat + rise) + diffuse * baseR;
      fG =
        metal * metalScaleG * (metalG + (<f32>1 - metalG) * rise) + dielectric * (f0G * flat + rise) + diffuse * baseG;
      fB =
        metal * metalScaleB * (metalB + (<f32>1 - metalB) * rise) + dielectric * (f0B * flat + rise) + diffuse * baseB;
      pdf = probabilityGloss * seen + probabilityMatte * (<f32>1 - through) * iz * INV_PI;
      matte = diffuse;
    }
    if (probabilityGlass > 0 && !smoothGlass) {
      const f = fresnel(oh, solid ? eta : ior),
        g = shareGlass * glassScale * f * gloss;
      fR += g;
      fG += g;
      fB += g;
      pdf += probabilityGlass * f * seen;
    }
    if (layered) addLayers(ix, iy, iz, hx, hy, hz, oh);
  } else if (iz < <f32>-1e-5 && lightFromBehind) {
    if (through > 0) {
      const f0Most = max3(f0R, f0G, f0B),
        taken = specular * (f0Most + (<f32>1 - f0Most) * fifth(<f32>1 - min<f32>(oz, -iz)));
      matte = shareOpaque * through * (<f32>1 - taken) * -iz * INV_PI;
      fR = matte * throughR;
      fG = matte * throughG;
      fB = matte * throughB;
      pdf = probabilityMatte * through * -iz * INV_PI;
    }
    if (probabilityGlass > 0 && !smoothGlass) addTransmitted(ix, iy, iz);
    if (layered) {
      let keep = sheenKeep(max<f32>(sheenAlbedoO, sheenAlbedo(-iz)));
      if (coat > 0) keep *= coatKeep(min<f32>(coatO, abs<f32>(ix * coatX + iy * coatY + iz * coatZ)));
      fR *= keep;
      fG *= keep;
      fB *= keep;
    }
  }
}

// @ts-ignore: decorator
@inline
function sheenAlbedo(iz: f32): f32 {
  return sheenMost > 0 ? tableAt(load<u32>(PACK + P_SHEEN_ALBEDO_PTR), ALBEDO_STEPS, sheenRow, iz) : 0;
}

/** What white sheen leaves for what lies below it, of the larger of its albedos at both directions. */
// @ts-ignore: decorator
@inline
function sheenKeep(albedo: f32): f32 {
  return <f32>1 - sheenMost * min<f32>(albedo, 1);
}

// @ts-ignore: decorator
@inline
function coatKeep(cosine: f32): f32 {
  return <f32>1 - coat * (COAT_F0 + (<f32>1 - COAT_F0) * fifth(<f32>1 - cosine));
}

/** Puts sheen and coat over what fR, fG, fB and pdf hold for a reflected direction. */
function addLayers(ix: f32, iy: f32, iz: f32, hx: f32, hy: f32, hz: f32, oh: f32): void {
  if (sheenMost > 0) {
    const albedo = max<f32>(sheenAlbedoO, sheenAlbedo(iz)),
      keep = sheenKeep(albedo),
      s = evaluateSheen(hx * hx + hy * hy, iz) / max<f32>(albedo, 1);
    fR = fR * keep + sheenR * s;
    fG = fG * keep + sheenG * s;
    fB = fB * keep + sheenB * s;
    pdf += probabilitySheen * iz * INV_PI;
  }
  if (coat > 0) {
    const ci = ix * coatX + iy * coatY + iz * coatZ;
    const keep = coatKeep(min<f32>(min<f32>(coatO, max<f32>(ci, 0)), oh));
    fR *= keep;
    fG *= keep;
    fB *= keep;
    if (ci > <f32>1e-5) {
      const ch = hx * coatX + hy * coatY + hz * coatZ;
      // squared sines from cross products, which do not cancel
      const sx = hy * coatZ - hz * coatY,
        sy = hz * coatX - hx * coatZ,
        sz = hx * coatY - hy * coatX;
      const d = distribution(sqrt<f32>(sx * sx + sy * sy + sz * sz), 0, ch, coatAlpha, coatAlpha);
      const lo = lambda(sqrt<f32>(max<f32>(<f32>1 - coatO * coatO, 0)), 0, coatO, coatAlpha, coatAlpha),
        li = lambda(sqrt<f32>(max<f32>(<f32>1 - ci * ci, 0)), 0, ci, coatAlpha, coatAlpha);
      const f =
        (coat * (COAT_F0 + (<f32>1 - COAT_F0) * fifth(<f32>1 - oh)) * d) / ((<f32>1 + lo + li) * <f32>4 * coatO);
      fR += f;
      fG += f;
      fB += f;
      pdf += (probabilityCoat * d) / ((<f32>1 + lo) * <f32>4 * coatO);
    }
  }
}

/** Adds rough glass for a direction beyond the surface. */
function addTransmitted(ix: f32, iy: f32, iz: f32): void {
  if (!solid) {
    // a thin rough sheet blurs without bending: the reflected lobe seen through the sheet
    let hx = ox + ix,
      hy = oy + iy,
      hz = oz - iz;
    const length = sqrt<f32>(hx * hx + hy * hy + hz * hz);
    hx /= length;
    hy /= length;
    hz /= length;
    const oh = max<f32>(ox * hx + oy * hy + oz * hz, <f32>1e-6);
    const d = distribution(hx, hy, hz, alpha, alpha),
      lo = lambda(ox, oy, oz, alpha, alpha),
      li = lambda(ix, iy, iz, alpha, alpha);
    const passed = <f32>1 - fresnel(oh, ior),
      g = (shareGlass * glassScale * passed * d) / ((<f32>1 + lo + li) * <f32>4 * oz);
    fR += g * baseR;
    fG += g * baseG;
    fB += g * baseB;
    pdf += (probabilityGlass * passed * d) / ((<f32>1 + lo) * <f32>4 * oz);
    return;
  }
  let hx = -(ox + eta * ix),
    hy = -(oy + eta * iy),
    hz = -(oz + eta * iz);
  const length = sqrt<f32>(hx * hx + hy * hy + hz * hz);
  if (length < <f32>1e-9) return;
  const turn: f32 = hz < 0 ? -(<f32>1) / length : <f32>1 / length;
  hx *= turn;
  hy *= turn;
  hz *= turn;
  const oh = ox * hx + oy * hy + oz * hz,
    ih = ix * hx + iy * hy + iz * hz;
  if (oh <= 0 || ih >= 0) return;
  const d = distribution(hx, hy, hz, alpha, alpha),
    lo = lambda(ox, oy, oz, alpha, alpha),
    li = lambda(ix, iy, iz, alpha, alpha);
  const passed = <f32>1 - fresnel(oh, eta),
    bend = oh + eta * ih;
  const jacobian = (eta * eta * -ih) / (bend * bend);
  const seen = (d * oh) / ((<f32>1 + lo) * oz);
  pdf += probabilityGlass * passed * seen * jacobian;
  // radiance is squeezed by the square of the index on the way through
  const g = (((shareGlass * glassScale * passed * seen) / (<f32>1 + li)) * jacobian) / (eta * eta);
  fR += g * baseR;
  fG += g * baseG;
  fB += g * baseB;
}

function finish(x: f32, y: f32, z: f32): void {
  wx = tx * x + bx * y + nx * z;
  wy = ty * x + by * y + ny * z;
  wz = tz * x + bz * y + nz * z;
  const k: f32 = <f32>1 / sqrt<f32>(wx * wx + wy * wy + wz * wz);
  wx *= k;
  wy *= k;
  wz *= k;
}

/** Samples a direction: `choice` picks the lobe, (u, v) the direction within it. False when nothing was scattered. */
export function sample(choice: f32, u: f32, v: f32): bool {
  delta = false;
  transmitted = false;
  kind =
    choice < probabilityGlass
      ? GLASS
      : choice < probabilityGlass + probabilityGloss + probabilityCoat
        ? GLOSS
        : DIFFUSE;
  if (choice < probabilityGlass) {
    if (smoothGlass) return samplePerfect(choice / probabilityGlass);
    sampleNormal(ox, oy, oz, alpha, alpha, u, v);
    const oh = ox * hX + oy * hY + oz * hZ;
    if (oh <= 0) return false;
    const f = fresnel(oh, solid ? eta : ior);
    let x = <f32>2 * oh * hX - ox,
      y = <f32>2 * oh * hY - oy,
      z = <f32>2 * oh * hZ - oz;
    if (choice >= probabilityGlass * f) {
      transmitted = true;
      if (!solid) z = -z;
      else {
        const inverse: f32 = <f32>1 / eta,
          t2 = <f32>1 - inverse * inverse * (<f32>1 - oh * oh);
        if (t2 <= 0) return false;
        const k = inverse * oh - sqrt<f32>(t2);
        x = k * hX - inverse * ox;
        y = k * hY - inverse * oy;
        z = k * hZ - inverse * oz;
      }
      if (z >= 0) return false;
    } else if (z <= 0) return false;
    evaluateLocal(x, y, z);
    finish(x, y, z);
  } else if (choice < probabilityGlass + probabilityGloss) {
    sampleNormal(ox, oy, oz, ax, ay, u, v);
    const oh = ox * hX + oy * hY + oz * hZ;
    const x = <f32>2 * oh * hX - ox,
      y = <f32>2 * oh * hY - oy,
      z = <f32>2 * oh * hZ - oz;
    if (z <= 0) return false;
    evaluateLocal(x, y, z);
    finish(x, y, z);
  } else if (choice < probabilityGlass + probabilityGloss + probabilityCoat) {
    if (!sampleCoat(u, v)) return false;
  } else {
    const r = sqrt<f32>(u);
    sinCosTurns(v);
    const x = r * cosOut,
      y = r * sinOut;
    let z = sqrt<f32>(max<f32>(0, <f32>1 - u));
    // what is left of the choice: sheen first, then the matte layer, of which the last share goes through
    if (choice >= <f32>1 - probabilityMatte * through) {
      z = -z;
      transmitted = true;
    }
    evaluateLocal(x, y, z);
    finish(x, y, z);
  }
  if (!(pdf > <f32>1e-12)) return false;
  const k: f32 = <f32>1 / pdf;
  weightR = fR * k;
  weightG = fG * k;
  weightB = fB * k;
  return true;
}

/** A direction mirrored by the coat, whose facets lie about its own normal. */
function sampleCoat(u: f32, v: f32): bool {
  // a frame about the coat's normal, in local coordinates
  const sign = copysign<f32>(1, coatZ),
    p: f32 = -(<f32>1) / (sign + coatZ),
    q = coatX * coatY * p;
  const sx = <f32>1 + sign * coatX * coatX * p,
    sy = sign * q,
    sz = -sign * coatX,
    rx = q,
    ry = sign + coatY * coatY * p,
    rz = -coatY;
  sampleNormal(sx * ox + sy * oy + sz * oz, rx * ox + ry * oy + rz * oz, coatO, coatAlpha, coatAlpha, u, v);
  const hx = sx * hX + rx * hY + coatX * hZ,
    hy = sy * hX + ry * hY + coatY * hZ,
    hz = sz * hX + rz * hY + coatZ * hZ;
  const oh = ox * hx + oy * hy + oz * hz;
  const x = <f32>2 * oh * hx - ox,
    y = <f32>2 * oh * hy - oy,
    z = <f32>2 * oh * hz - oz;
  if (z <= <f32>1e-5 || oh <= 0) return false;
  evaluateLocal(x, y, z);
  finish(x, y, z);
  return true;
}

/**
 * Smooth glass: Fresnel decides between the mirror direction and the refracted or, in a thin sheet, the straight one.
 */
function samplePerfect(choice: f32): bool {
  delta = true;
  let k: f32 = shareGlass / probabilityGlass;
  if (layered) {
    k *= sheenKeep(sheenAlbedoO);
    if (coat > 0) k *= coatKeep(coatO);
  }
  const f = fresnel(oz, solid ? eta : ior);
  if (choice < f) {
    finish(-ox, -oy, oz);
    weightR = k;
    weightG = k;
    weightB = k;
    return true;
  }
  transmitted = true;
  let squeeze: f32 = 1;
  if (!solid) finish(-ox, -oy, -oz);
  else {
    const inverse: f32 = <f32>1 / eta,
      t2 = <f32>1 - inverse * inverse * (<f32>1 - oz * oz);
    if (t2 <= 0) return false;
    finish(-inverse * ox, -inverse * oy, -sqrt<f32>(t2));
    squeeze = inverse * inverse;
  }
  weightR = k * baseR * squeeze;
  weightG = k * baseG * squeeze;
  weightB = k * baseB * squeeze;
  return true;
}
