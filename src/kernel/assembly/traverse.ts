// Closest hit and shadow transmittance in an 8-wide BVH whose leaves are packs of four triangles, with 128-bit SIMD.
// Frame: world metres. A ray is 32 bytes at `ray`: origin xyz, t min, direction xyz, t max. Cost O(log n); memory: the stack.
// Sources: Wald, Benthin, Boulos 2008 (wide BVHs); Moeller and Trumbore 1997 with precomputed edges.
//
// Node, 256 bytes, eight children:
//   minX x8, maxX x8 | the same for Y, Z (64 bytes each) | 8 child codes at 192
// Child code: inner node = its address; leaf = address of its first block | 8 | number of blocks (1 to 7); something placed = address
//   of its record (layout.ts) | 24: an object with a tree of its own, entered with the ray in its coordinates and the same t, or a
//   glowing shape. Absent children are point boxes far away (inverted boxes would need a test): code 8.
// Block, 160 bytes: v0 xyz, edge1 xyz (v0 - v1), edge2 xyz (v2 - v0), each four lanes, then four triangle ids.
//   The sign bit of an id marks a sheer triangle (shadow rays may pass); -1 pads.
//
// Measured (npm run bench): two v128 per slab plane; pmin/pmax, which map to one instruction, instead of min/max: a factor
// of 1.6; stack entries of (t near, child) packed in 64 bits. Tried and dropped: quantised nodes, sorted rays.
import { P_ROOT, PACK, PLACED_INVERSE, PLACED_KIND, PLACED_OBJECT, PLACED_ROOT } from './layout';
import { meetShape } from './shapes';
import { passSheer, sheerB, sheerG, sheerR } from './sheer';

/** The closest hit: distance, triangle (-1 for none), barycentrics of its second and third vertex. */
export let hitT: f32 = 0;
export let hitTriangle: i32 = -1;
export let hitU: f32 = 0;
export let hitV: f32 = 0;
/** The record of the placed object or shape that was hit; 0 for the world's own triangles. Of a shape hitTriangle is 0. */
export let hitPlaced: usize = 0;
/** What a shadow ray let through, per channel. */
export let shadowR: f32 = 0;
export let shadowG: f32 = 0;
export let shadowB: f32 = 0;
/** Rays traced by this instance since it began. */
export let rayCount: u64 = 0;

let stack: usize = 0;
/** Gives this instance its own stack: 64 bytes of scratch, a ray in an object's coordinates, then entries of 8 bytes. */
export function setStack(address: usize): void {
  stack = address;
}

export function clearRayCount(): void {
  rayCount = 0;
}

// @ts-ignore: decorator
@inline
function reciprocal(d: f32): f32 {
  return <f32>1.0 / (abs<f32>(d) < <f32>1e-18 ? copysign<f32>(<f32>1e-18, d) : d); // keeps 0 * infinity out of the slabs
}

const LOCAL_RAY: usize = 64;
const ENTRIES: usize = 96;

/** Takes origin and direction of a ray to the coordinates of something placed; t keeps its meaning, so the direction is not unit. */
function bringRay(ray: usize, placed: usize, to: usize): void {
  const m = placed + PLACED_INVERSE;
  const ox = load<f32>(ray), oy = load<f32>(ray, 4), oz = load<f32>(ray, 8), dx = load<f32>(ray, 16), dy = load<f32>(ray, 20), dz = load<f32>(ray, 24);
  for (let k: usize = 0; k < 12; k += 4) {
    const a = load<f32>(m + k), b = load<f32>(m + k, 12), c = load<f32>(m + k, 24);
    store<f32>(to + k, a * ox + b * oy + c * oz + load<f32>(m + k, 36));
    store<f32>(to + k, a * dx + b * dy + c * dz, 16);
  }
}

// The tree that is being walked: the placed object that it belongs to, 0 for the world's; and where the stack stood when the walk
// came to something placed.
let within: usize = 0;
let pausedTop: usize = 0;
const NOTHING: u32 = 8; // the code of an absent child

/** Leaves the closest hit of a ray in hitT, hitTriangle, hitU, hitV, hitPlaced. */
export function intersect(ray: usize): void {
  rayCount++;
  hitTriangle = -1;
  hitT = load<f32>(ray, 28);
  const root = load<u32>(PACK + P_ROOT), bottom = stack + ENTRIES;
  if (!root) return;
  within = 0;
  let met = walk(ray, root, bottom, bottom);
  while (met) {
    walkPlaced(met, ray);
    within = 0;
    met = walk(ray, NOTHING, bottom, pausedTop);
  }
}

/** Looks for a hit not beyond hitT in something placed, with the stack from pausedTop on. */
function walkPlaced(placed: usize, ray: usize): void {
  const local = stack + LOCAL_RAY, kind = load<u32>(placed, PLACED_KIND);
  bringRay(ray, placed, local);
  store<f32>(local, load<f32>(ray, 12), 12);
  within = placed;
  if (kind == PLACED_OBJECT) { walk(local, load<u32>(placed, PLACED_ROOT), pausedTop, pausedTop); return; }
  const t = meetShape(kind, local, load<f32>(ray, 12), hitT);
  if (t < hitT) { hitT = t; hitTriangle = 0; hitPlaced = placed; }
}

/**
 * Walks one tree for a hit not beyond hitT, from `current` and then what is on the stack. Ends with 0, or with the
 * record of something placed that has to be looked into first. With that done in here, by a call or by changing the ray's vectors
 * in place, the walk was 5 and 25 % slower, for want of registers.
 */
function walk(ray: usize, current: u32, bottom: usize, top: usize): usize {
  const vox = v128.load32_splat(ray), voy = v128.load32_splat(ray, 4), voz = v128.load32_splat(ray, 8);
  const vrx = f32x4.splat(reciprocal(load<f32>(ray, 16))), vry = f32x4.splat(reciprocal(load<f32>(ray, 20))), vrz = f32x4.splat(reciprocal(load<f32>(ray, 24)));
  const vtmin = v128.load32_splat(ray, 12);
  let vtmax = f32x4.splat(hitT);
  let bestT = hitT, bestU: f32 = 0, bestV: f32 = 0, bestId: i32 = -1, met: usize = 0;
  const scratch = stack;
  while (true) {
    while (!(current & 8)) {
      const n: usize = current;
      const ax = f32x4.mul(f32x4.sub(v128.load(n), vox), vrx), bx = f32x4.mul(f32x4.sub(v128.load(n, 32), vox), vrx);
      const ay = f32x4.mul(f32x4.sub(v128.load(n, 64), voy), vry), by = f32x4.mul(f32x4.sub(v128.load(n, 96), voy), vry);
      const az = f32x4.mul(f32x4.sub(v128.load(n, 128), voz), vrz), bz = f32x4.mul(f32x4.sub(v128.load(n, 160), voz), vrz);
      const near0 = f32x4.pmax(f32x4.pmax(f32x4.pmin(ax, bx), f32x4.pmin(ay, by)), f32x4.pmax(f32x4.pmin(az, bz), vtmin));
      const far0 = f32x4.pmin(f32x4.pmin(f32x4.pmax(ax, bx), f32x4.pmax(ay, by)), f32x4.pmin(f32x4.pmax(az, bz), vtmax));
      const cx = f32x4.mul(f32x4.sub(v128.load(n, 16), vox), vrx), dx = f32x4.mul(f32x4.sub(v128.load(n, 48), vox), vrx);
      const cy = f32x4.mul(f32x4.sub(v128.load(n, 80), voy), vry), dy = f32x4.mul(f32x4.sub(v128.load(n, 112), voy), vry);
      const cz = f32x4.mul(f32x4.sub(v128.load(n, 144), voz), vrz), dz = f32x4.mul(f32x4.sub(v128.load(n, 176), voz), vrz);
      const near1 = f32x4.pmax(f32x4.pmax(f32x4.pmin(cx, dx), f32x4.pmin(cy, dy)), f32x4.pmax(f32x4.pmin(cz, dz), vtmin));
      const far1 = f32x4.pmin(f32x4.pmin(f32x4.pmax(cx, dx), f32x4.pmax(cy, dy)), f32x4.pmin(f32x4.pmax(cz, dz), vtmax));
      let mask = i32x4.bitmask(f32x4.le(near0, far0)) | (i32x4.bitmask(f32x4.le(near1, far1)) << 4);
      if (!mask) { current = 0; break; }
      const first = ctz(mask);
      mask &= mask - 1;
      if (!mask) { current = load<u32>(n + (first << 2), 192); continue; }
      // (child, t near) pairs, comparable as unsigned 64-bit numbers because t near is not negative
      const codes0 = v128.load(n, 192), codes1 = v128.load(n, 208);
      v128.store(scratch, v128.shuffle<i32>(codes0, near0, 0, 4, 1, 5));
      v128.store(scratch, v128.shuffle<i32>(codes0, near0, 2, 6, 3, 7), 16);
      v128.store(scratch, v128.shuffle<i32>(codes1, near1, 0, 4, 1, 5), 32);
      v128.store(scratch, v128.shuffle<i32>(codes1, near1, 2, 6, 3, 7), 48);
      const key0 = load<u64>(scratch + (first << 3)), key1 = load<u64>(scratch + (ctz(mask) << 3));
      mask &= mask - 1;
      if (!mask) {
        if (key0 < key1) { store<u64>(top, key1); current = <u32>key0; } else { store<u64>(top, key0); current = <u32>key1; }
        top += 8;
        continue;
      }
      // three and more: insertion sort on the stack, nearest on top
      const base = top;
      store<u64>(top, key0 > key1 ? key0 : key1);
      store<u64>(top, key0 > key1 ? key1 : key0, 8);
      top += 16;
      do {
        const key = load<u64>(scratch + (ctz(mask) << 3));
        mask &= mask - 1;
        let p = top;
        while (p > base && load<u64>(p - 8) < key) { store<u64>(p, load<u64>(p - 8)); p -= 8; }
        store<u64>(p, key);
        top += 8;
      } while (mask);
      top -= 8;
      current = load<u32>(top);
    }
    if (current & 16) {
      met = current & ~31;
      pausedTop = top;
      bottom = top; // ends the walk
    } else if (current) {
      let t: usize = current & ~15;
      const vdx = v128.load32_splat(ray, 16), vdy = v128.load32_splat(ray, 20), vdz = v128.load32_splat(ray, 24);
      for (let blocks = current & 7; blocks > 0; blocks--, t += 160) {
        const e1x = v128.load(t, 48), e1y = v128.load(t, 64), e1z = v128.load(t, 80), e2x = v128.load(t, 96), e2y = v128.load(t, 112), e2z = v128.load(t, 128);
        const cx = f32x4.sub(v128.load(t), vox), cy = f32x4.sub(v128.load(t, 16), voy), cz = f32x4.sub(v128.load(t, 32), voz);
        const rx = f32x4.sub(f32x4.mul(cy, vdz), f32x4.mul(cz, vdy)), ry = f32x4.sub(f32x4.mul(cz, vdx), f32x4.mul(cx, vdz)), rz = f32x4.sub(f32x4.mul(cx, vdy), f32x4.mul(cy, vdx));
        const gx = f32x4.sub(f32x4.mul(e2y, e1z), f32x4.mul(e2z, e1y)), gy = f32x4.sub(f32x4.mul(e2z, e1x), f32x4.mul(e2x, e1z)), gz = f32x4.sub(f32x4.mul(e2x, e1y), f32x4.mul(e2y, e1x));
        const den = f32x4.add(f32x4.add(f32x4.mul(gx, vdx), f32x4.mul(gy, vdy)), f32x4.mul(gz, vdz));
        const sign = v128.and(den, i32x4.splat(0x80000000)), size = v128.xor(den, sign);
        const u = v128.xor(f32x4.add(f32x4.add(f32x4.mul(rx, e2x), f32x4.mul(ry, e2y)), f32x4.mul(rz, e2z)), sign);
        const w = v128.xor(f32x4.add(f32x4.add(f32x4.mul(rx, e1x), f32x4.mul(ry, e1y)), f32x4.mul(rz, e1z)), sign);
        const zero = f32x4.splat(0);
        let ok = v128.and(v128.and(f32x4.ge(u, zero), f32x4.ge(w, zero)), f32x4.le(f32x4.add(u, w), size));
        if (!i32x4.bitmask(ok)) continue;
        const distance = v128.xor(f32x4.add(f32x4.add(f32x4.mul(gx, cx), f32x4.mul(gy, cy)), f32x4.mul(gz, cz)), sign);
        ok = v128.and(ok, v128.and(v128.and(f32x4.lt(f32x4.mul(size, vtmin), distance), f32x4.le(distance, f32x4.mul(size, vtmax))), f32x4.ne(den, zero)));
        let mask = i32x4.bitmask(ok);
        if (!mask) continue;
        const inverse = f32x4.div(f32x4.splat(1), size);
        v128.store(scratch, f32x4.mul(distance, inverse));
        let best = -1;
        do {
          const lane = ctz(mask), lt = load<f32>(scratch + (lane << 2));
          if (lt <= bestT) { bestT = lt; best = lane; }
          mask &= mask - 1;
        } while (mask);
        if (best >= 0) {
          v128.store(scratch, f32x4.mul(u, inverse));
          v128.store(scratch, f32x4.mul(w, inverse), 16);
          bestU = load<f32>(scratch + (best << 2));
          bestV = load<f32>(scratch + (best << 2), 16);
          bestId = load<i32>(t + (best << 2), 144);
          vtmax = f32x4.splat(bestT);
        }
      }
    }
    while (true) {
      if (top == bottom) {
        if (bestId == -1) return met;
        hitT = bestT; hitU = bestU; hitV = bestV; hitPlaced = within;
        hitTriangle = bestId & 0x7fffffff;
        return met;
      }
      top -= 8;
      if (load<f32>(top, 4) <= bestT) break;
    }
    current = load<u32>(top);
  }
  return 0; // never reached
}

/**
 * Whether anything opaque lies on the ray; if not, shadowR, shadowG, shadowB hold what sheer surfaces on the way let
 * through. Each triangle lies in one leaf, so their factors may be multiplied in any order but are visited in one
 * order only, which keeps the product the same everywhere. `aimedAt`: the record of a shape that the ray goes to, which is
 * not in its own way however it was rounded; 0 for none.
 */
export function occluded(ray: usize, aimedAt: usize): bool {
  rayCount++;
  shadowR = 1; shadowG = 1; shadowB = 1;
  const root = load<u32>(PACK + P_ROOT), bottom = stack + ENTRIES;
  if (!root) return false;
  within = 0;
  let met = walkShadow(ray, root, bottom, bottom);
  while (met > BLOCKED) {
    if (met != aimedAt && shadowPlaced(met, ray)) return true;
    within = 0;
    met = walkShadow(ray, NOTHING, bottom, pausedTop);
  }
  return met == BLOCKED;
}

const BLOCKED: usize = 1;
let worldRay: usize = 0;

function shadowPlaced(placed: usize, ray: usize): bool {
  const local = stack + LOCAL_RAY, kind = load<u32>(placed, PLACED_KIND), end = load<f32>(ray, 28);
  bringRay(ray, placed, local);
  if (kind != PLACED_OBJECT) return meetShape(kind, local, load<f32>(ray, 12), end) < end;
  store<f32>(local, load<f32>(ray, 12), 12);
  store<f32>(local, end, 28);
  within = placed;
  worldRay = ray;
  return walkShadow(local, load<u32>(placed, PLACED_ROOT), pausedTop, pausedTop) == BLOCKED;
}

/** As walk; ends with BLOCKED when something opaque lies on the ray. */
function walkShadow(ray: usize, current: u32, bottom: usize, top: usize): usize {
  const vox = v128.load32_splat(ray), voy = v128.load32_splat(ray, 4), voz = v128.load32_splat(ray, 8);
  const vrx = f32x4.splat(reciprocal(load<f32>(ray, 16))), vry = f32x4.splat(reciprocal(load<f32>(ray, 20))), vrz = f32x4.splat(reciprocal(load<f32>(ray, 24)));
  const vtmin = v128.load32_splat(ray, 12), vtmax = v128.load32_splat(ray, 28);
  const scratch = stack;
  while (true) {
    while (!(current & 8)) {
      const n: usize = current;
      const ax = f32x4.mul(f32x4.sub(v128.load(n), vox), vrx), bx = f32x4.mul(f32x4.sub(v128.load(n, 32), vox), vrx);
      const ay = f32x4.mul(f32x4.sub(v128.load(n, 64), voy), vry), by = f32x4.mul(f32x4.sub(v128.load(n, 96), voy), vry);
      const az = f32x4.mul(f32x4.sub(v128.load(n, 128), voz), vrz), bz = f32x4.mul(f32x4.sub(v128.load(n, 160), voz), vrz);
      const near0 = f32x4.pmax(f32x4.pmax(f32x4.pmin(ax, bx), f32x4.pmin(ay, by)), f32x4.pmax(f32x4.pmin(az, bz), vtmin));
      const far0 = f32x4.pmin(f32x4.pmin(f32x4.pmax(ax, bx), f32x4.pmax(ay, by)), f32x4.pmin(f32x4.pmax(az, bz), vtmax));
      const cx = f32x4.mul(f32x4.sub(v128.load(n, 16), vox), vrx), dx = f32x4.mul(f32x4.sub(v128.load(n, 48), vox), vrx);
      const cy = f32x4.mul(f32x4.sub(v128.load(n, 80), voy), vry), dy = f32x4.mul(f32x4.sub(v128.load(n, 112), voy), vry);
      const cz = f32x4.mul(f32x4.sub(v128.load(n, 144), voz), vrz), dz = f32x4.mul(f32x4.sub(v128.load(n, 176), voz), vrz);
      const near1 = f32x4.pmax(f32x4.pmax(f32x4.pmin(cx, dx), f32x4.pmin(cy, dy)), f32x4.pmax(f32x4.pmin(cz, dz), vtmin));
      const far1 = f32x4.pmin(f32x4.pmin(f32x4.pmax(cx, dx), f32x4.pmax(cy, dy)), f32x4.pmin(f32x4.pmax(cz, dz), vtmax));
      let mask = i32x4.bitmask(f32x4.le(near0, far0)) | (i32x4.bitmask(f32x4.le(near1, far1)) << 4);
      if (!mask) { current = 0; break; }
      // no sort by distance: the builder has ordered the children by area, the likeliest blocker last
      current = load<u32>(n + (ctz(mask) << 2), 192);
      mask &= mask - 1;
      while (mask) {
        store<u32>(top, current);
        top += 4;
        current = load<u32>(n + (ctz(mask) << 2), 192);
        mask &= mask - 1;
      }
    }
    if (current & 16) {
      pausedTop = top;
      return current & ~31;
    } else if (current) {
      let t: usize = current & ~15;
      const vdx = v128.load32_splat(ray, 16), vdy = v128.load32_splat(ray, 20), vdz = v128.load32_splat(ray, 24);
      for (let blocks = current & 7; blocks > 0; blocks--, t += 160) {
        const e1x = v128.load(t, 48), e1y = v128.load(t, 64), e1z = v128.load(t, 80), e2x = v128.load(t, 96), e2y = v128.load(t, 112), e2z = v128.load(t, 128);
        const cx = f32x4.sub(v128.load(t), vox), cy = f32x4.sub(v128.load(t, 16), voy), cz = f32x4.sub(v128.load(t, 32), voz);
        const rx = f32x4.sub(f32x4.mul(cy, vdz), f32x4.mul(cz, vdy)), ry = f32x4.sub(f32x4.mul(cz, vdx), f32x4.mul(cx, vdz)), rz = f32x4.sub(f32x4.mul(cx, vdy), f32x4.mul(cy, vdx));
        const gx = f32x4.sub(f32x4.mul(e2y, e1z), f32x4.mul(e2z, e1y)), gy = f32x4.sub(f32x4.mul(e2z, e1x), f32x4.mul(e2x, e1z)), gz = f32x4.sub(f32x4.mul(e2x, e1y), f32x4.mul(e2y, e1x));
        const den = f32x4.add(f32x4.add(f32x4.mul(gx, vdx), f32x4.mul(gy, vdy)), f32x4.mul(gz, vdz));
        const sign = v128.and(den, i32x4.splat(0x80000000)), size = v128.xor(den, sign);
        const u = v128.xor(f32x4.add(f32x4.add(f32x4.mul(rx, e2x), f32x4.mul(ry, e2y)), f32x4.mul(rz, e2z)), sign);
        const w = v128.xor(f32x4.add(f32x4.add(f32x4.mul(rx, e1x), f32x4.mul(ry, e1y)), f32x4.mul(rz, e1z)), sign);
        const zero = f32x4.splat(0);
        let ok = v128.and(v128.and(f32x4.ge(u, zero), f32x4.ge(w, zero)), f32x4.le(f32x4.add(u, w), size));
        if (!i32x4.bitmask(ok)) continue;
        const distance = v128.xor(f32x4.add(f32x4.add(f32x4.mul(gx, cx), f32x4.mul(gy, cy)), f32x4.mul(gz, cz)), sign);
        ok = v128.and(ok, v128.and(v128.and(f32x4.lt(f32x4.mul(size, vtmin), distance), f32x4.le(distance, f32x4.mul(size, vtmax))), f32x4.ne(den, zero)));
        let mask = i32x4.bitmask(ok);
        if (!mask) continue;
        if (mask & ~i32x4.bitmask(v128.load(t, 144))) return BLOCKED;
        const inverse = f32x4.div(f32x4.splat(1), size);
        v128.store(scratch, f32x4.mul(u, inverse));
        v128.store(scratch, f32x4.mul(w, inverse), 16);
        do {
          const lane = ctz(mask) << 2;
          passSheer(load<i32>(t + lane, 144) & 0x7fffffff, within, load<f32>(scratch + lane), load<f32>(scratch + lane, 16), within ? worldRay : ray);
          shadowR *= sheerR; shadowG *= sheerG; shadowB *= sheerB;
          mask &= mask - 1;
        } while (mask);
        if (shadowR + shadowG + shadowB < <f32>1e-6) return BLOCKED;
      }
    }
    if (top == bottom) return 0;
    top -= 4;
    current = load<u32>(top);
  }
  return 0;
}

/** Closest hits of `count` rays in a row; writes (t or -1, triangle) pairs. For the bench and the tests. */
export function intersectMany(rays: usize, count: i32, out: usize): void {
  for (let i = 0; i < count; i++, rays += 32, out += 8) {
    intersect(rays);
    store<f32>(out, hitTriangle < 0 ? -1 : hitT);
    store<i32>(out, hitTriangle, 4);
  }
}

/** Shadow tests of `count` rays in a row; writes 1 for blocked, -1 for free. */
export function occludedMany(rays: usize, count: i32, out: usize): void {
  for (let i = 0; i < count; i++, rays += 32, out += 4) store<f32>(out, occluded(rays, 0) ? 1 : -1);
}
