// The panes through which a room gets its light. Rooms lit through windows are the commonest hard case: most directions meet a
// wall. So most light samples of the sky are aimed at the panes, chosen by how large they look from the place in question and
// uniform by area on each.
// After Bitterli, Novak and Jarosz 2015, Portal-Masked Environment Map Sampling, without the image's part of the density.
import { MOST_PORTALS, P_PORTAL_COUNT, P_PORTALS_PTR, PACK, PORTAL_ALONG_A, PORTAL_ALONG_B, PORTAL_AREA, PORTAL_BYTES, PORTAL_NORMAL, PORTAL_SHAPE, S_EYE, S_PORTALS, SETTINGS } from './layout';

/** The direction sampled last. */
export let dx: f32 = 0; export let dy: f32 = 0; export let dz: f32 = 0;
let open: f32 = 0; // sum of the weights at the place weighed last
let weights: usize = 0;
/** Where light is wanted, its normal, and whether light from behind counts; the weights there are made when they are first asked for. */
let x: f32 = 0; let y: f32 = 0; let z: f32 = 0;
let nx: f32 = 0; let ny: f32 = 0; let nz: f32 = 0;
let everywhere: bool = false;
let anywhere: bool = false; let weighed: bool = false;

/** Gives this instance room for its weights. */
export function setScratch(address: usize): void {
  weights = address;
}

export function inRoom(): bool {
  return load<u32>(SETTINGS + S_PORTALS) != 0;
}

// @ts-ignore: decorator
@inline
function portal(i: i32): usize {
  return <usize>load<u32>(PACK + P_PORTALS_PTR) + <usize>(i * PORTAL_BYTES);
}

/** No portals from here on: outside, or where nothing scatters. */
export function seenFromNowhere(): void {
  anywhere = false;
}

/** The portals are wanted as seen from a point with a normal; `fromBehind` when light from behind counts too. */
export function seenFrom(px: f32, py: f32, pz: f32, normalX: f32, normalY: f32, normalZ: f32, fromBehind: bool): void {
  x = px; y = py; z = pz;
  nx = normalX; ny = normalY; nz = normalZ;
  everywhere = fromBehind;
  anywhere = true; weighed = false;
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
  const count = min<i32>(load<i32>(PACK + P_PORTAL_COUNT), MOST_PORTALS);
  for (let i = 0; i < count; i++) {
    const p = portal(i), area = load<f32>(p, PORTAL_AREA);
    // of a parallelogram the middle, of a triangle a point near it: a weight only has to be about right
    const cx = load<f32>(p) + <f32>0.5 * (load<f32>(p, 12) + load<f32>(p, 24)) - x;
    const cy = load<f32>(p, 4) + <f32>0.5 * (load<f32>(p, 16) + load<f32>(p, 28)) - y;
    const cz = load<f32>(p, 8) + <f32>0.5 * (load<f32>(p, 20) + load<f32>(p, 32)) - z;
    const d2 = cx * cx + cy * cy + cz * cz, inverse: f32 = <f32>1 / sqrt<f32>(max<f32>(d2, <f32>1e-12));
    const size = min<f32>(sqrt<f32>(area) * inverse, 1);
    const facing = abs<f32>(cx * load<f32>(p, PORTAL_NORMAL) + cy * load<f32>(p, PORTAL_NORMAL + 4) + cz * load<f32>(p, PORTAL_NORMAL + 8)) * inverse;
    const above: f32 = everywhere ? 1 : min<f32>(max<f32>((cx * nx + cy * ny + cz * nz) * inverse + size, 0), 1);
    const weight = above * (facing + <f32>0.25 * size) * area / (d2 + area);
    store<f32>(weights + (<usize>i << 2), weight);
    open += weight;
  }
}

/** Samples a direction through a portal from the place given last, where they are open. */
export function sample(u0: f32, u1: f32): void {
  const last = min<i32>(load<i32>(PACK + P_PORTAL_COUNT), MOST_PORTALS) - 1;
  let rest = u0 * open, i = 0, weight = load<f32>(weights);
  while (i < last && rest >= weight) { rest -= weight; i++; weight = load<f32>(weights + (<usize>i << 2)); }
  const p = portal(i), s = min<f32>(rest / max<f32>(weight, <f32>1e-30), 1);
  let a = s, b = u1;
  if (load<f32>(p, PORTAL_SHAPE) < 2) { const root = sqrt<f32>(s); a = root * (<f32>1 - u1); b = root * u1; }
  dx = load<f32>(p) + a * load<f32>(p, 12) + b * load<f32>(p, 24) - x;
  dy = load<f32>(p, 4) + a * load<f32>(p, 16) + b * load<f32>(p, 28) - y;
  dz = load<f32>(p, 8) + a * load<f32>(p, 20) + b * load<f32>(p, 32) - z;
  const k: f32 = <f32>1 / max<f32>(sqrt<f32>(dx * dx + dy * dy + dz * dz), <f32>1e-9);
  dx *= k; dy *= k; dz *= k;
}

/** Density per solid angle with which sample() would have given this direction: over all portals that lie on it. */
export function pdf(vx: f32, vy: f32, vz: f32): f32 {
  const count = min<i32>(load<i32>(PACK + P_PORTAL_COUNT), MOST_PORTALS);
  let p = portal(0), sum: f32 = 0;
  for (let i = 0; i < count; i++, p += PORTAL_BYTES) {
    const nx = load<f32>(p, PORTAL_NORMAL), ny = load<f32>(p, PORTAL_NORMAL + 4), nz = load<f32>(p, PORTAL_NORMAL + 8);
    const cosine = nx * vx + ny * vy + nz * vz;
    const cx = load<f32>(p) - x, cy = load<f32>(p, 4) - y, cz = load<f32>(p, 8) - z;
    const height = cx * nx + cy * ny + cz * nz;
    if (height * cosine <= 0) continue;
    const t = height / cosine, qx = t * vx - cx, qy = t * vy - cy, qz = t * vz - cz;
    const a = qx * load<f32>(p, PORTAL_ALONG_A) + qy * load<f32>(p, PORTAL_ALONG_A + 4) + qz * load<f32>(p, PORTAL_ALONG_A + 8);
    if (a < 0 || a > 1) continue;
    const b = qx * load<f32>(p, PORTAL_ALONG_B) + qy * load<f32>(p, PORTAL_ALONG_B + 4) + qz * load<f32>(p, PORTAL_ALONG_B + 8);
    if (b < 0 || b > 1 || (a + b > 1 && load<f32>(p, PORTAL_SHAPE) < 2)) continue;
    sum += load<f32>(weights + (<usize>i << 2)) * t * t / (load<f32>(p, PORTAL_AREA) * max<f32>(abs<f32>(cosine), <f32>1e-6));
  }
  return sum / open;
}

/** Whether a direction that passes a clear sheet of this normal at this place leads out of the room that the camera stands in. */
export function leadsOut(vx: f32, vy: f32, vz: f32, px: f32, py: f32, pz: f32, nx: f32, ny: f32, nz: f32): bool {
  const eye = (load<f32>(SETTINGS + S_EYE) - px) * nx + (load<f32>(SETTINGS + S_EYE, 4) - py) * ny + (load<f32>(SETTINGS + S_EYE, 8) - pz) * nz;
  return (vx * nx + vy * ny + vz * nz) * eye < 0;
}
