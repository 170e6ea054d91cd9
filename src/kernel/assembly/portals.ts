// The panes through which a room gets its light. Rooms lit through windows are the commonest hard case: most directions
// meet a wall. So most light samples of the sky are aimed at the panes, chosen by how large they look from the place in
// question and uniform by area on each.
// After Bitterli, Novak and Jarosz 2015, Portal-Masked Environment Map Sampling, without the image's part of the
// density.
import {
  MAX_PORTALS,
  P_PORTAL_COUNT,
  P_PORTALS_PTR,
  PACK,
  PORTAL_ALONG_A,
  PORTAL_ALONG_B,
  PORTAL_AREA,
  PORTAL_BLOCK_BYTES,
  PORTAL_MIDDLE,
  PORTAL_NORMAL,
  PORTAL_SHAPE,
  S_EYE,
  S_PORTALS,
  SETTINGS
} from './layout';

/** The direction sampled last. */
export let dx: f32 = 0;
export let dy: f32 = 0;
export let dz: f32 = 0;
let open: f32 = 0; // sum of the weights at the place weighed last
let weights: usize = 0;
/**
 * Where light is wanted, its normal, and whether light from behind counts; the weights there are made when they are
 * first asked for.
 */
let x: f32 = 0;
let y: f32 = 0;
let z: f32 = 0;
let nx: f32 = 0;
let ny: f32 = 0;
let nz: f32 = 0;
let everywhere: bool = false;
let anywhere: bool = false;
let weighed: bool = false;

/** Gives this instance room for its weights. */
export function setScratch(address: usize): void {
  weights = address;
}

export function inRoom(): bool {
  return load<u32>(SETTINGS + S_PORTALS) != 0;
}

// @ts-ignore: decorator
@inline
function blocks(): usize {
  return <usize>load<u32>(PACK + P_PORTALS_PTR);
}

// @ts-ignore: decorator
@inline
function blockCount(): i32 {
  return (min<i32>(load<i32>(PACK + P_PORTAL_COUNT), MAX_PORTALS) + 3) >> 2;
}

/** Dot products of a vector of each of four portals and another. */
// @ts-ignore: decorator
@inline
function dot(at: usize, vx: v128, vy: v128, vz: v128): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(v128.load(at), vx), f32x4.mul(v128.load(at, 16), vy)),
    f32x4.mul(v128.load(at, 32), vz)
  );
}

// @ts-ignore: decorator
@inline
function sumOf(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3);
}

/** No portals from here on: outside, or where nothing scatters. */
export function seenFromNowhere(): void {
  anywhere = false;
}

/** The portals are wanted as seen from a point with a normal; `fromBehind` when light from behind counts too. */
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
  anywhere = true;
  weighed = false;
}

/** Whether light comes through a portal to the place given last. */
export function areOpen(): bool {
  if (!anywhere) return false;
  if (!weighed) weigh();
  return open > 0;
}

function weigh(): void {
  weighed = true;
  open = 0;
  const vx = f32x4.splat(x),
    vy = f32x4.splat(y),
    vz = f32x4.splat(z),
    zero = f32x4.splat(0),
    one = f32x4.splat(1);
  for (let i = 0, n = blockCount(), p = blocks(); i < n; i++, p += PORTAL_BLOCK_BYTES) {
    // of a parallelogram the middle, of a triangle a point near it: a weight only has to be about right
    const area = v128.load(p, PORTAL_AREA),
      cx = f32x4.sub(v128.load(p, PORTAL_MIDDLE), vx),
      cy = f32x4.sub(v128.load(p, PORTAL_MIDDLE + 16), vy),
      cz = f32x4.sub(v128.load(p, PORTAL_MIDDLE + 32), vz);
    const d2 = f32x4.pmax(
        f32x4.add(f32x4.add(f32x4.mul(cx, cx), f32x4.mul(cy, cy)), f32x4.mul(cz, cz)),
        f32x4.splat(1e-12)
      ),
      inverse = f32x4.div(one, f32x4.sqrt(d2));
    const size = f32x4.pmin(f32x4.mul(f32x4.sqrt(area), inverse), one),
      facing = f32x4.mul(f32x4.abs(dot(p + PORTAL_NORMAL, cx, cy, cz)), inverse);
    let weight = f32x4.div(f32x4.mul(f32x4.add(facing, f32x4.mul(size, f32x4.splat(0.25))), area), f32x4.add(d2, area));
    if (!everywhere) {
      const along = f32x4.add(
        f32x4.add(f32x4.mul(cx, f32x4.splat(nx)), f32x4.mul(cy, f32x4.splat(ny))),
        f32x4.mul(cz, f32x4.splat(nz))
      );
      weight = f32x4.mul(weight, f32x4.pmin(f32x4.pmax(f32x4.add(f32x4.mul(along, inverse), size), zero), one));
    }
    v128.store(weights + ((<usize>i) << 4), weight);
    open += sumOf(weight);
  }
}

/** Samples a direction through a portal from the place given last, where they are open. */
export function sample(u0: f32, u1: f32): void {
  const last = min<i32>(load<i32>(PACK + P_PORTAL_COUNT), MAX_PORTALS) - 1;
  let rest = u0 * open,
    i = 0,
    weight = load<f32>(weights);
  while (i < last && rest >= weight) {
    rest -= weight;
    i++;
    weight = load<f32>(weights + ((<usize>i) << 2));
  }
  const p = blocks() + <usize>((i >> 2) * PORTAL_BLOCK_BYTES + ((i & 3) << 2)),
    s = min<f32>(rest / max<f32>(weight, <f32>1e-30), 1);
  let a = s,
    b = u1;
  if (load<f32>(p, PORTAL_SHAPE) < 2) {
    const root = sqrt<f32>(s);
    a = root * (<f32>1 - u1);
    b = root * u1;
  }
  dx = load<f32>(p) + a * load<f32>(p, 48) + b * load<f32>(p, 96) - x;
  dy = load<f32>(p, 16) + a * load<f32>(p, 64) + b * load<f32>(p, 112) - y;
  dz = load<f32>(p, 32) + a * load<f32>(p, 80) + b * load<f32>(p, 128) - z;
  const k: f32 = <f32>1 / max<f32>(sqrt<f32>(dx * dx + dy * dy + dz * dz), <f32>1e-9);
  dx *= k;
  dy *= k;
  dz *= k;
}

/** Density per solid angle with which sample() would have given this direction: over all portals that lie on it. */
export function pdf(vx: f32, vy: f32, vz: f32): f32 {
  const wx = f32x4.splat(vx),
    wy = f32x4.splat(vy),
    wz = f32x4.splat(vz),
    zero = f32x4.splat(0),
    one = f32x4.splat(1);
  let sum: f32 = 0;
  for (let i = 0, n = blockCount(), p = blocks(); i < n; i++, p += PORTAL_BLOCK_BYTES) {
    const cosine = dot(p + PORTAL_NORMAL, wx, wy, wz);
    const cx = f32x4.sub(v128.load(p), f32x4.splat(x)),
      cy = f32x4.sub(v128.load(p, 16), f32x4.splat(y)),
      cz = f32x4.sub(v128.load(p, 32), f32x4.splat(z));
    const height = dot(p + PORTAL_NORMAL, cx, cy, cz);
    let met = f32x4.gt(f32x4.mul(height, cosine), zero);
    if (!v128.any_true(met)) continue;
    const t = f32x4.div(height, cosine),
      qx = f32x4.sub(f32x4.mul(t, wx), cx),
      qy = f32x4.sub(f32x4.mul(t, wy), cy),
      qz = f32x4.sub(f32x4.mul(t, wz), cz);
    const a = dot(p + PORTAL_ALONG_A, qx, qy, qz),
      b = dot(p + PORTAL_ALONG_B, qx, qy, qz);
    // of a triangle the sum is at most 1, of a parallelogram, whose shape is 2, it always is at most that
    const inside = v128.and(
      v128.and(f32x4.ge(a, zero), f32x4.ge(b, zero)),
      v128.and(f32x4.le(a, one), f32x4.le(b, one))
    );
    met = v128.and(met, v128.and(inside, f32x4.le(f32x4.add(a, b), v128.load(p, PORTAL_SHAPE))));
    if (!v128.any_true(met)) continue;
    const weight = v128.load(weights + ((<usize>i) << 4)),
      area = v128.load(p, PORTAL_AREA);
    sum += sumOf(
      v128.and(
        met,
        f32x4.div(f32x4.mul(weight, f32x4.mul(t, t)), f32x4.mul(area, f32x4.pmax(f32x4.abs(cosine), f32x4.splat(1e-6))))
      )
    );
  }
  return sum / open;
}

/**
 * Whether a direction that passes a clear sheet of this normal at this place leads out of the room that the camera
 * stands in.
 */
export function leadsOut(vx: f32, vy: f32, vz: f32, px: f32, py: f32, pz: f32, nx: f32, ny: f32, nz: f32): bool {
  const eye =
    (load<f32>(SETTINGS + S_EYE) - px) * nx +
    (load<f32>(SETTINGS + S_EYE, 4) - py) * ny +
    (load<f32>(SETTINGS + S_EYE, 8) - pz) * nz;
  return (vx * nx + vy * ny + vz * nz) * eye < 0;
}
