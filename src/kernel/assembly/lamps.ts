// Lights inside the model: glowing triangles and shapes, points, spots and photometric webs, one chosen in a tree by
// what it may bring to the place, and directional lights, which are few and all taken.
// Units: triangles radiate their material's emission (cd/m2), points, spots and webs cd, directional lights lx
// (KHR_lights_punctual). Source: Conty and Kulla 2018, Importance Sampling of Many Lights with Adaptive Tree Splitting,
// section 5 (without the splitting).
import {
  DIRECTIONAL_BYTES,
  L_AREA,
  L_AXIS,
  L_CONE_SCALE,
  L_COS_OUTER,
  L_EDGE1,
  L_EDGE2,
  L_GROUP,
  L_INTENSITY,
  L_KIND,
  L_LEAF,
  L_POSITION,
  L_TRIANGLE,
  LIGHT_BYTES,
  LIGHT_LEAF,
  LIGHT_NODE_BYTES,
  LIGHT_SHAPE,
  LIGHT_SPOT,
  LIGHT_TRIANGLE,
  LIGHT_WEB,
  N_AXIS,
  N_CHILDREN,
  N_COS_END,
  N_COS_SPREAD,
  N_FALLS,
  N_PLACE,
  N_RADIUS,
  N_SIN_SPREAD,
  N_STRENGTH,
  NO_NODE,
  P_DIRECTIONAL_COUNT,
  P_DIRECTIONAL_PTR,
  P_LIGHT_COUNT,
  P_LIGHT_NODES_PTR,
  P_LIGHTS_PTR,
  P_TRIANGLE_LIGHTS,
  PACK,
  S_WITHOUT,
  SETTINGS,
  WITHOUT_LIGHT_TREE
} from './layout';
import { random1D, random2D, u0, u1 } from './random';
import { candela } from './webs';

/**
 * The light sampled last. Of a triangle (lTriangle, else -1) a point with its normal; of a shape its record (lShape,
 * else 0), whose point is chosen by sampleShape; of the others place and intensity over distance squared.
 */
export let lx: f32 = 0;
export let ly: f32 = 0;
export let lz: f32 = 0;
export let lnx: f32 = 0;
export let lny: f32 = 0;
export let lnz: f32 = 0;
export let lTriangle: i32 = -1;
export let lShape: usize = 0;
export let lU: f32 = 0;
export let lV: f32 = 0;
export let lR: f32 = 0;
export let lG: f32 = 0;
export let lB: f32 = 0;
/** Chance of the light chosen; for triangles divided by its area. */
export let lightProbability: f32 = 0;
export let lGroup: u32 = 0;
/** What its light is to be multiplied with: 1, or more when it was one of those that seldom come. */
export let lTimes: f32 = 1;

export function lampCount(): i32 {
  return load<i32>(PACK + P_LIGHT_COUNT);
}

export function directionalCount(): i32 {
  return load<i32>(PACK + P_DIRECTIONAL_COUNT);
}

export function directional(i: i32): usize {
  return <usize>load<u32>(PACK + P_DIRECTIONAL_PTR) + <usize>(i * DIRECTIONAL_BYTES);
}

/** Where light is wanted: the place of the last scattering, its normal, and whether light from behind counts. */
let x: f32 = 0;
let y: f32 = 0;
let z: f32 = 0;
let nx: f32 = 0;
let ny: f32 = 0;
let nz: f32 = 0;
let everywhere: bool = false;
export function setReceiver(
  px: f32,
  py: f32,
  pz: f32,
  normalX: f32,
  normalY: f32,
  normalZ: f32,
  fromBehind: bool
): void {
  x = px;
  y = py;
  z = pz;
  nx = normalX;
  ny = normalY;
  nz = normalZ;
  everywhere = fromBehind;
}

// @ts-ignore: decorator
@inline
function node(i: u32): usize {
  return <usize>load<u32>(PACK + P_LIGHT_NODES_PTR) + <usize>(i * LIGHT_NODE_BYTES);
}

// Cosine and sine of the angle a - b, or of 0 when b is the larger.
// @ts-ignore: decorator
@inline
function cosLess(cosA: v128, sinA: v128, cosB: v128, sinB: v128): v128 {
  return v128.bitselect(f32x4.splat(1), f32x4.add(f32x4.mul(cosA, cosB), f32x4.mul(sinA, sinB)), f32x4.gt(cosA, cosB));
}

// @ts-ignore: decorator
@inline
function sinLess(cosA: v128, sinA: v128, cosB: v128, sinB: v128): v128 {
  return v128.andnot(f32x4.sub(f32x4.mul(sinA, cosB), f32x4.mul(cosA, sinB)), f32x4.gt(cosA, cosB));
}

// @ts-ignore: decorator
@inline
function otherOf(cosine: v128): v128 {
  return f32x4.sqrt(f32x4.pmax(f32x4.sub(f32x4.splat(1), f32x4.mul(cosine, cosine)), f32x4.splat(0)));
}

/**
 * About what the lamps of each of a node's children bring to the place, up to a constant; 0 only where they bring
 * nothing. Cosines over the angle that a child is seen under fall evenly to 0 where its last edge turns away; by their
 * most, a wide softbox near the horizon would be chosen in vain.
 */
function importances(n: usize): v128 {
  if (load<u32>(SETTINGS + S_WITHOUT) & WITHOUT_LIGHT_TREE) return v128.load(n, N_STRENGTH);
  const one = f32x4.splat(1),
    zero = f32x4.splat(0);
  const cx = f32x4.sub(v128.load(n), f32x4.splat(x)),
    cy = f32x4.sub(v128.load(n, 16), f32x4.splat(y)),
    cz = f32x4.sub(v128.load(n, 32), f32x4.splat(z));
  const radius = v128.load(n, N_RADIUS),
    r2 = f32x4.mul(radius, radius);
  const d2 = f32x4.add(f32x4.add(f32x4.mul(cx, cx), f32x4.mul(cy, cy)), f32x4.mul(cz, cz));
  // one over the distance, from within a child's sphere that of half way out at least
  const k = f32x4.div(one, f32x4.sqrt(f32x4.pmax(d2, f32x4.add(f32x4.mul(r2, f32x4.splat(0.25)), f32x4.splat(1e-12)))));
  const strength = f32x4.mul(v128.load(n, N_STRENGTH), f32x4.mul(k, k));
  // half the angle under which a child is seen
  const sinU = f32x4.pmin(f32x4.mul(radius, k), one),
    cosU = otherOf(sinU);
  const along = f32x4.add(
    f32x4.add(f32x4.mul(cx, v128.load(n, N_AXIS)), f32x4.mul(cy, v128.load(n, N_AXIS + 16))),
    f32x4.mul(cz, v128.load(n, N_AXIS + 32))
  );
  const cosine = f32x4.pmax(f32x4.pmin(f32x4.neg(f32x4.mul(along, k)), one), f32x4.splat(-1)),
    sine = otherOf(cosine);
  const cosS = v128.load(n, N_COS_SPREAD),
    sinS = v128.load(n, N_SIN_SPREAD);
  const cosN = cosLess(cosine, sine, cosS, sinS),
    cosP = cosLess(cosN, sinLess(cosine, sine, cosS, sinS), cosU, sinU),
    even = f32x4.sub(one, f32x4.mul(sinU, f32x4.splat(0.5)));
  // falls with the cosine within the first right angle beyond the spread; lamps that shine otherwise are taken as even
  let value = v128.bitselect(
    f32x4.mul(strength, f32x4.pmax(f32x4.mul(f32x4.add(cosN, sinU), even), zero)),
    strength,
    f32x4.gt(v128.load(n, N_FALLS), zero)
  );
  value = v128.and(value, f32x4.gt(cosP, v128.load(n, N_COS_END)));
  if (!everywhere) {
    const facing = f32x4.add(
      f32x4.add(f32x4.mul(cx, f32x4.splat(nx)), f32x4.mul(cy, f32x4.splat(ny))),
      f32x4.mul(cz, f32x4.splat(nz))
    );
    const c = f32x4.pmax(f32x4.pmin(f32x4.mul(facing, k), one), f32x4.splat(-1));
    value = f32x4.mul(value, f32x4.pmax(f32x4.mul(f32x4.add(c, sinU), even), zero));
  }
  return v128.bitselect(strength, value, f32x4.le(d2, r2)); // within its sphere anything may be
}

/** Gives this instance room for four weights. */
export function setScratch(address: usize): void {
  scratch = address;
}
let scratch: usize = 0;

export function lightAt(i: u32): usize {
  return <usize>load<u32>(PACK + P_LIGHTS_PTR) + <usize>(i * LIGHT_BYTES);
}

/** Chance with which sampleLamp would have chosen a light. */
export function probabilityOfLight(l: usize): f32 {
  let place = load<u32>(l, L_LEAF),
    probability: f32 = 1;
  while (place != NO_NODE) {
    const n = node(place >> 2),
      w = importances(n);
    v128.store(scratch, w);
    const mine = load<f32>(scratch + <usize>((place & 3) << 2));
    if (!(mine > 0)) return 0;
    probability *=
      mine /
      (f32x4.extract_lane(w, 0) + f32x4.extract_lane(w, 1) + f32x4.extract_lane(w, 2) + f32x4.extract_lane(w, 3));
    place = load<u32>(n, N_PLACE);
  }
  return probability;
}

/** Chance per area with which sampleLamp would have chosen a point on this triangle; 0 when it is no light. */
export function probabilityOfTriangle(triangle: i32): f32 {
  let low: u32 = 0,
    high = load<u32>(PACK + P_TRIANGLE_LIGHTS);
  while (low < high) {
    const middle = (low + high) >> 1,
      l = lightAt(middle),
      here = load<i32>(l, L_TRIANGLE);
    if (here == triangle) return probabilityOfLight(l) / load<f32>(l, L_AREA);
    if (here < triangle) low = middle + 1;
    else high = middle;
  }
  return 0;
}

/** Whether a child of a node is so far off that nothing in it brings more than four times what its middle would. */
// @ts-ignore: decorator
@inline
function isFar(child: usize): bool {
  const dx = load<f32>(child) - x,
    dy = load<f32>(child, 16) - y,
    dz = load<f32>(child, 32) - z,
    r = load<f32>(child, N_RADIUS);
  return dx * dx + dy * dy + dz * dz > <f32>4 * r * r;
}

/**
 * Chooses a lamp by `choice` and, of a triangle, a point on it by the numbers of `pair` for the place given to
 * setReceiver; false when none can reach it. Lamps that bring less than `threshold`, lx, are left to Russian roulette before they are
 * looked for any further. The numbers are drawn when there is a lamp, and stay in u0, u1.
 */
export function sampleLamp(choice: f32, pair: u32, threshold: f32): bool {
  let code: u32 = 0;
  lightProbability = 1;
  lTimes = 1;
  while (!(code & LIGHT_LEAF)) {
    const n = node(code),
      w = importances(n);
    const a = f32x4.extract_lane(w, 0),
      b = f32x4.extract_lane(w, 1),
      c = f32x4.extract_lane(w, 2),
      d = f32x4.extract_lane(w, 3);
    const sum = a + b + c + d;
    if (!(sum > 0)) return false;
    let rest = choice * sum,
      slot: usize = 0,
      weight = a;
    if (rest >= a && b + c + d > 0) {
      rest -= a;
      slot = 1;
      weight = b;
      if (rest >= b && c + d > 0) {
        rest -= b;
        slot = 2;
        weight = c;
        if (rest >= c && d > 0) {
          rest -= c;
          slot = 3;
          weight = d;
        }
      }
    }
    if (!(weight > 0)) return false;
    if (weight < threshold * lightProbability && isFar(n + (slot << 2))) {
      const most = threshold * lightProbability;
      if (random1D(pair) * most >= weight) return false;
      lTimes = most / weight;
      threshold = 0;
    }
    lightProbability *= weight / sum;
    choice = min<f32>(max<f32>(rest / weight, 0), <f32>0.99999994);
    code = load<u32>(n + (slot << 2), N_CHILDREN);
  }
  const l = lightAt(code & ~LIGHT_LEAF),
    kind = load<i32>(l, L_KIND);
  random2D(pair);
  lGroup = load<u32>(l, L_GROUP);
  lShape = kind >= LIGHT_SHAPE ? l : 0;
  if (lShape) return true;
  if (kind == LIGHT_TRIANGLE) {
    lTriangle = load<i32>(l, L_TRIANGLE);
    const root = sqrt<f32>(u0);
    lU = (<f32>1 - u1) * root;
    lV = u1 * root;
    const e1x = load<f32>(l, L_EDGE1),
      e1y = load<f32>(l, L_EDGE1 + 4),
      e1z = load<f32>(l, L_EDGE1 + 8);
    const e2x = load<f32>(l, L_EDGE2),
      e2y = load<f32>(l, L_EDGE2 + 4),
      e2z = load<f32>(l, L_EDGE2 + 8);
    lx = load<f32>(l, L_POSITION) + lU * e1x + lV * e2x;
    ly = load<f32>(l, L_POSITION + 4) + lU * e1y + lV * e2y;
    lz = load<f32>(l, L_POSITION + 8) + lU * e1z + lV * e2z;
    lnx = e1y * e2z - e1z * e2y;
    lny = e1z * e2x - e1x * e2z;
    lnz = e1x * e2y - e1y * e2x;
    const k: f32 = <f32>1 / max<f32>(sqrt<f32>(lnx * lnx + lny * lny + lnz * lnz), <f32>1e-30);
    lnx *= k;
    lny *= k;
    lnz *= k;
    lightProbability /= load<f32>(l, L_AREA);
    return true;
  }
  lTriangle = -1;
  lx = load<f32>(l, L_POSITION);
  ly = load<f32>(l, L_POSITION + 4);
  lz = load<f32>(l, L_POSITION + 8);
  const dx = x - lx,
    dy = y - ly,
    dz = z - lz,
    d2 = dx * dx + dy * dy + dz * dz;
  let k: f32 = <f32>1 / max<f32>(d2, <f32>1e-12);
  if (kind == LIGHT_WEB) k *= candela(l, dx, dy, dz, d2);
  else if (kind == LIGHT_SPOT) {
    const c =
      (dx * load<f32>(l, L_AXIS) + dy * load<f32>(l, L_AXIS + 4) + dz * load<f32>(l, L_AXIS + 8)) / sqrt<f32>(d2);
    const t = min<f32>(max<f32>((c - load<f32>(l, L_COS_OUTER)) * load<f32>(l, L_CONE_SCALE), 0), 1);
    k *= t * t; // the falloff KHR_lights_punctual recommends
  }
  lR = k * load<f32>(l, L_INTENSITY);
  lG = k * load<f32>(l, L_INTENSITY + 4);
  lB = k * load<f32>(l, L_INTENSITY + 8);
  return true;
}
