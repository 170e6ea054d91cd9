// The ground of a product picture: an endless level plane that is seen as what lies behind it, but for the light that
// the model takes from it or sends to it. It is a matte surface whose reflectance is, for each line of sight, what
// would give back exactly the surroundings' radiance there under all light but the model's own: pi L / E. So a shadow
// is as dark and as coloured as it would be on such a ground, and where nothing stands there is no difference. On it,
// if wanted, a polish that shows the model alone. E is the surroundings' irradiance on a level plane (reckoned by the
// host) plus that of the set's lamps, polygons in closed form (Lambert 1760). After Debevec 1998, Rendering Synthetic
// Objects into Real Scenes, section 6 (the differential in one rendering). Limits: below it there is nothing to see,
// and it does not hide what stands below it from there.
import {
  G_AXIS,
  G_CORNERS,
  G_COUNT,
  G_LIMIT,
  G_RADIANCE,
  GROUND_LIGHT_BYTES,
  P_GROUND_LIGHTS,
  P_GROUND_LIGHTS_PTR,
  PACK,
  S_GROUND,
  S_GROUND_FADE,
  S_GROUND_HEIGHT,
  S_GROUND_IRRADIANCE,
  S_GROUND_MIDDLE,
  S_GROUND_POLISH,
  S_GROUND_ROUGHNESS,
  SETTINGS
} from './layout';
import { hX, hY, hZ, lambda, sampleNormal } from './ggx';
import { atan2, INV_PI } from './math';

// Of the plane's irradiance over pi: what it reflects at least, so that its shadow is known where the surroundings are
// black.
const LEAST: f32 = 0.001;
// Where light comes by way of others it gives back no more than the whitest paint, else it would feed itself.
const MAX_INDIRECT: f32 = 0.9;

/**
 * Of the place reckoned last: radiance seen there, at least a thousandth of white, and the reflectance that gives it.
 */
export let seenR: f32 = 0;
export let seenG: f32 = 0;
export let seenB: f32 = 0;
export let whiteR: f32 = 0;
export let whiteG: f32 = 0;
export let whiteB: f32 = 0;

export function isThere(): bool {
  return load<u32>(SETTINGS + S_GROUND) != 0;
}

export function height(): f32 {
  return load<f32>(SETTINGS + S_GROUND_HEIGHT);
}

/** How far along a ray from above the ground lies, when nearer than `end`; else -1. */
export function meet(ray: usize, end: f32): f32 {
  if (!isThere()) return -1;
  const dy = load<f32>(ray, 20),
    above = load<f32>(ray, 4) - height();
  if (dy >= 0 || above <= 0) return -1;
  const t = -above / dy;
  return t < end ? t : -1;
}

/** How much of shadow and polish is left at a place: 1 near the model, 0 far away, smooth between. */
export function presence(x: f32, z: f32): f32 {
  const dx = x - load<f32>(SETTINGS + S_GROUND_MIDDLE),
    dz = z - load<f32>(SETTINGS + S_GROUND_MIDDLE, 4);
  const from = load<f32>(SETTINGS + S_GROUND_FADE),
    to = load<f32>(SETTINGS + S_GROUND_FADE, 4);
  const k = min<f32>(max<f32>((to - sqrt<f32>(dx * dx + dz * dz)) / max<f32>(to - from, <f32>1e-6), 0), 1);
  return k * k * (<f32>3 - 2 * k);
}

/** Irradiance of a level place (x, z) from one of the set's lamps, over its radiance. */
function under(light: usize, x: f32, z: f32): f32 {
  const y = height();
  const facing =
    load<f32>(light, G_AXIS) * x +
    load<f32>(light, G_AXIS + 4) * y +
    load<f32>(light, G_AXIS + 8) * z -
    load<f32>(light, G_LIMIT);
  if (facing <= 0) return 0;
  const count = load<u32>(light, G_COUNT);
  let sum: f32 = 0;
  for (let i: u32 = 0; i < count; i++) {
    const p = light + G_CORNERS + <usize>(i * 12),
      q = light + G_CORNERS + <usize>((i + 1 == count ? 0 : i + 1) * 12);
    const ax = load<f32>(p) - x,
      ay = load<f32>(p, 4) - y,
      az = load<f32>(p, 8) - z,
      bx = load<f32>(q) - x,
      by = load<f32>(q, 4) - y,
      bz = load<f32>(q, 8) - z;
    const cx = ay * bz - az * by,
      cy = az * bx - ax * bz,
      cz = ax * by - ay * bx,
      size = sqrt<f32>(cx * cx + cy * cy + cz * cz);
    if (size > 0) sum += (atan2(size, ax * bx + ay * by + az * bz) * cy) / size;
  }
  return <f32>0.5 * abs<f32>(sum);
}

/** Reckons the place (x, z) where the surroundings' radiance behind it is (r, g, b). */
export function reckon(x: f32, z: f32, r: f32, g: f32, b: f32, direct: bool): void {
  let eR = load<f32>(SETTINGS + S_GROUND_IRRADIANCE),
    eG = load<f32>(SETTINGS + S_GROUND_IRRADIANCE, 4),
    eB = load<f32>(SETTINGS + S_GROUND_IRRADIANCE, 8);
  let light = <usize>load<u32>(PACK + P_GROUND_LIGHTS_PTR);
  for (let i: u32 = 0, n = load<u32>(PACK + P_GROUND_LIGHTS); i < n; i++, light += GROUND_LIGHT_BYTES) {
    const k = under(light, x, z);
    eR += k * load<f32>(light, G_RADIANCE);
    eG += k * load<f32>(light, G_RADIANCE + 4);
    eB += k * load<f32>(light, G_RADIANCE + 8);
  }
  eR *= INV_PI;
  eG *= INV_PI;
  eB *= INV_PI;
  seenR = max<f32>(r, LEAST * eR);
  seenG = max<f32>(g, LEAST * eG);
  seenB = max<f32>(b, LEAST * eB);
  whiteR = eR > 0 ? seenR / eR : 0;
  whiteG = eG > 0 ? seenG / eG : 0;
  whiteB = eB > 0 ? seenB / eB : 0;
  if (direct) return;
  whiteR = min<f32>(whiteR, MAX_INDIRECT);
  whiteG = min<f32>(whiteG, MAX_INDIRECT);
  whiteB = min<f32>(whiteB, MAX_INDIRECT);
}

/**
 * Share of light that the polish mirrors, seen at this cosine: Schlick 1994, its strength being that at normal
 * incidence.
 */
export function polish(cosine: f32): f32 {
  const strength = load<f32>(SETTINGS + S_GROUND_POLISH);
  if (strength <= 0) return 0;
  const c = <f32>1 - cosine,
    c2 = c * c;
  return strength + (<f32>1 - strength) * c2 * c2 * c;
}

/**
 * Where the polish mirrors the ray of direction (dx, dy, dz) to, and what of it is not lost between its grains; 0: all.
 */
export let mirrorX: f32 = 0;
export let mirrorY: f32 = 0;
export let mirrorZ: f32 = 0;
export function mirror(dx: f32, dy: f32, dz: f32, u: f32, v: f32): f32 {
  const roughness = load<f32>(SETTINGS + S_GROUND_ROUGHNESS),
    alpha = roughness * roughness;
  if (alpha < <f32>1e-4) {
    mirrorX = dx;
    mirrorY = -dy;
    mirrorZ = dz;
    return 1;
  }
  // in the local frame the plane's normal is z
  sampleNormal(-dx, -dz, -dy, alpha, alpha, u, v);
  const k: f32 = -2 * (dx * hX + dz * hY + dy * hZ);
  mirrorX = dx + k * hX;
  mirrorZ = dz + k * hY;
  mirrorY = dy + k * hZ;
  if (mirrorY <= 0) return 0;
  const one: f32 = <f32>1 + lambda(-dx, -dz, -dy, alpha, alpha);
  return one / (one + lambda(mirrorX, mirrorZ, mirrorY, alpha, alpha));
}
