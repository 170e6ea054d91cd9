// Glowing shapes that are no meshes: rectangle, disc and sphere, black but for their even radiance towards the front.
// From behind, or from inside the sphere, they are not there: light and sight pass.
// Frame: own coordinates, in which a rectangle is |x|, |y| <= 1 and a disc x2 + y2 <= 1 in the plane z = 0, both with
// their front to +z, and a sphere has radius 1. Sampling in world coordinates: rectangle and disc by area, the sphere
// by the cone that it fills (Shirley, Wang, Zimmerman 1996, Monte Carlo Techniques for Direct Lighting Calculations,
// section 3.2).
import { L_AXIS, L_EDGE1, L_EDGE2, L_POSITION, L_RADIUS, PLACED_DISC, PLACED_SPHERE } from './layout';
import { cosOut, PI, sinCosTurns, sinOut } from './math';

/** Where a ray in the shape's own coordinates meets it within (tMin, tMax), else Infinity. */
export function meetShape(kind: u32, ray: usize, tMin: f32, tMax: f32): f32 {
  const ox = load<f32>(ray),
    oy = load<f32>(ray, 4),
    oz = load<f32>(ray, 8),
    dx = load<f32>(ray, 16),
    dy = load<f32>(ray, 20),
    dz = load<f32>(ray, 24);
  if (kind == PLACED_SPHERE) {
    const a = dx * dx + dy * dy + dz * dz,
      b = ox * dx + oy * dy + oz * dz,
      c = ox * ox + oy * oy + oz * oz - <f32>1;
    if (b >= 0 || c <= 0) return Infinity;
    // the distance of the line from the middle, rather than b2 - a c, which cancels far away (Haines and others 2019,
    // Ray Tracing Gems, chapter 7)
    const k: f32 = b / a,
      lx = ox - k * dx,
      ly = oy - k * dy,
      lz = oz - k * dz,
      under: f32 = <f32>1 - (lx * lx + ly * ly + lz * lz);
    if (under <= 0) return Infinity;
    const t = c / (-b + sqrt<f32>(a * under));
    return t > tMin && t < tMax ? t : Infinity;
  }
  if (oz <= 0 || dz >= 0) return Infinity;
  const t = -oz / dz;
  if (!(t > tMin && t < tMax)) return Infinity;
  const x = ox + t * dx,
    y = oy + t * dy;
  return (kind == PLACED_DISC ? x * x + y * y <= 1 : abs<f32>(x) <= 1 && abs<f32>(y) <= 1) ? t : Infinity;
}

/** Direction to a point of the shape, its distance in m, and the density of that choice per solid angle. */
export let toX: f32 = 0;
export let toY: f32 = 0;
export let toZ: f32 = 0;
export let distance: f32 = 0;
export let density: f32 = 0;

/**
 * Chooses a point of light `l` (layout.ts) by (u, v) for the place (x, y, z); false when its front is not seen from
 * there.
 */
export function sampleShape(kind: u32, l: usize, x: f32, y: f32, z: f32, u: f32, v: f32): bool {
  const cx = load<f32>(l, L_POSITION) - x,
    cy = load<f32>(l, L_POSITION + 4) - y,
    cz = load<f32>(l, L_POSITION + 8) - z;
  if (kind == PLACED_SPHERE) {
    const d2 = cx * cx + cy * cy + cz * cz,
      r = load<f32>(l, L_RADIUS),
      cap = coneOf(d2, r);
    if (cap <= 0) return false;
    const one = u * cap,
      cosine = <f32>1 - one,
      sine2 = one * (<f32>2 - one);
    const k: f32 = <f32>1 / sqrt<f32>(d2),
      ax = cx * k,
      ay = cy * k,
      az = cz * k;
    // a frame about the axis (Duff and others 2017)
    const sign = copysign<f32>(1, az),
      p: f32 = -(<f32>1) / (sign + az),
      q = ax * ay * p,
      s = sqrt<f32>(sine2);
    sinCosTurns(v);
    const e = s * cosOut,
      f = s * sinOut;
    toX = cosine * ax + e * (<f32>1 + sign * ax * ax * p) + f * q;
    toY = cosine * ay + e * sign * q + f * (sign + ay * ay * p);
    toZ = cosine * az - e * sign * ax - f * ay;
    const d = sqrt<f32>(d2),
      under = r * r - d2 * sine2;
    distance = d * cosine - sqrt<f32>(max<f32>(under, 0));
    density = <f32>1 / (<f32>2 * PI * cap);
    return true;
  }
  let s = <f32>2 * u - <f32>1,
    t = <f32>2 * v - <f32>1;
  if (kind == PLACED_DISC) {
    sinCosTurns(v);
    const radius = sqrt<f32>(u);
    s = radius * cosOut;
    t = radius * sinOut;
  }
  toX = cx + s * load<f32>(l, L_EDGE1) + t * load<f32>(l, L_EDGE2);
  toY = cy + s * load<f32>(l, L_EDGE1 + 4) + t * load<f32>(l, L_EDGE2 + 4);
  toZ = cz + s * load<f32>(l, L_EDGE1 + 8) + t * load<f32>(l, L_EDGE2 + 8);
  const d2 = toX * toX + toY * toY + toZ * toZ;
  distance = sqrt<f32>(d2);
  const k: f32 = <f32>1 / max<f32>(distance, <f32>1e-12);
  toX *= k;
  toY *= k;
  toZ *= k;
  density = densityOfArea(l, d2, toX, toY, toZ);
  return density > 0;
}

/**
 * Density per solid angle with which sampleShape would have chosen a direction (unit) that meets the shape after `t` m.
 */
export function densityOfShape(kind: u32, l: usize, x: f32, y: f32, z: f32, dx: f32, dy: f32, dz: f32, t: f32): f32 {
  if (kind != PLACED_SPHERE) return densityOfArea(l, t * t, dx, dy, dz);
  const cx = load<f32>(l, L_POSITION) - x,
    cy = load<f32>(l, L_POSITION + 4) - y,
    cz = load<f32>(l, L_POSITION + 8) - z;
  const cap = coneOf(cx * cx + cy * cy + cz * cz, load<f32>(l, L_RADIUS));
  return cap > 0 ? <f32>1 / (<f32>2 * PI * cap) : 0;
}

function densityOfArea(l: usize, d2: f32, dx: f32, dy: f32, dz: f32): f32 {
  const facing = -(dx * load<f32>(l, L_AXIS) + dy * load<f32>(l, L_AXIS + 4) + dz * load<f32>(l, L_AXIS + 8));
  return facing > <f32>1e-6 ? d2 / (facing * load<f32>(l, L_RADIUS)) : 0;
}

/** 1 minus the cosine of half the angle that a sphere fills, 0 from inside; without cancelling for small ones. */
// @ts-ignore: decorator
@inline
function coneOf(d2: f32, r: f32): f32 {
  const sine2 = (r * r) / d2;
  return sine2 >= 1 ? 0 : sine2 / (<f32>1 + sqrt<f32>(<f32>1 - sine2));
}
