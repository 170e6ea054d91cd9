// Closest hit and shadow transmittance in an 8-wide BVH whose leaves are packs of four triangles, with 128-bit SIMD.
// Frame: world metres. A ray is 32 bytes at `ray`: origin xyz, t min, direction xyz, t max. Cost O(log n); memory: the
// stack. Sources: Wald, Benthin, Boulos 2008 (wide BVHs); Woop, Benthin, Wald 2013, Watertight Ray/Triangle
// Intersection, JCGT 2(1): a ray aimed at the edge that two triangles share meets one of them, because both reckon the
// edge from the same products; Ize 2013, Robust BVH Ray Traversal, JCGT 2(2): the far ends of a box are moved out by
// what rounding may have taken.
//
// Node, 256 bytes, eight children:
//   minX x8, maxX x8 | the same for Y, Z (64 bytes each) | 8 child codes at 192
// Child code: inner node = its address; leaf = address of its first block | 8 | number of blocks (1 to 7); something
// placed = address
// of its record (layout.ts) | 24: an object with a tree of its own, entered with the ray in its coordinates and the
//   same t, or a
//   glowing shape. Absent children are point boxes far away (inverted boxes would need a test): code 8.
// Block, 160 bytes: v0 xyz, v1 xyz, v2 xyz, each four lanes, then four triangle ids.
//   The sign bit of an id marks a transparent triangle (shadow rays may pass); -1 pads.
//
// Measured (npm run bench): two v128 per slab plane; pmin/pmax, which map to one instruction, instead of min/max: a
// factor of 1.6; stack entries of (t near, child) packed in 64 bits. Tried and dropped: quantised nodes, sorted rays.
import { P_ROOT, PACK, PLACED_INVERSE, PLACED_KIND, PLACED_OBJECT, PLACED_ROOT } from './layout';
import { meetShape } from './shapes';
import { passTransparent, transmittedB, transmittedG, transmittedR } from './transparent';

/** The closest hit: distance, triangle (-1 for none), barycentrics of its second and third vertex. */
export let hitT: f32 = 0;
export let hitTriangle: i32 = -1;
export let hitU: f32 = 0;
export let hitV: f32 = 0;
/**
 * The record of the placed object or shape that was hit; 0 for the world's own triangles. Of a shape hitTriangle is 0.
 */
export let hitPlaced: usize = 0;
/** What a shadow ray let through, per channel. */
export let shadowR: f32 = 0;
export let shadowG: f32 = 0;
export let shadowB: f32 = 0;
/** Rays traced by this instance since they were cleared, and those of them that were shadow tests. */
export let rayCount: u64 = 0;
export let shadowRayCount: u64 = 0;

let stack: usize = 0;
/**
 * Gives this instance its own stack: 64 bytes of scratch, a ray in an object's coordinates, then entries of 8 bytes.
 */
export function setStack(address: usize): void {
  stack = address;
}

export function clearRayCount(): void {
  rayCount = 0;
  shadowRayCount = 0;
}

// @ts-ignore: decorator
@inline
function reciprocal(d: f32): f32 {
  return <f32>1.0 / (abs<f32>(d) < <f32>1e-18 ? copysign<f32>(<f32>1e-18, d) : d); // keeps 0 * infinity out of the slabs
}

const LOCAL_RAY: usize = 64;
const ENTRIES: usize = 160;
// Of the ray that is walking: shear in x and y, 1/dz, origin with its axes turned, then three offsets of a block's
// rows.
const SHEAR: usize = 96;
// Three roundings a slab and side, twice.
const BOX_SLACK: f32 = 1.0000004;

/** The axes are turned so that the ray runs mostly along z, and sheared so that it runs along z alone. */
function makeShear(ray: usize, to: usize): void {
  const dx = load<f32>(ray, 16),
    dy = load<f32>(ray, 20),
    dz = load<f32>(ray, 24),
    ax = abs<f32>(dx),
    ay = abs<f32>(dy),
    az = abs<f32>(dz);
  // without branches: rays of a path have no main direction to guess
  const z = select<usize>(select<usize>(0, 4, ax > ay), 8, max<f32>(ax, ay) > az),
    x = select<usize>(0, z + 4, z == 8),
    y = select<usize>(0, x + 4, x == 8);
  const k = reciprocal(load<f32>(ray + z, 16));
  store<f32>(to, load<f32>(ray + x, 16) * k);
  store<f32>(to, load<f32>(ray + y, 16) * k, 4);
  store<f32>(to, k, 8);
  store<f32>(to, load<f32>(ray + x), 12);
  store<f32>(to, load<f32>(ray + y), 16);
  store<f32>(to, load<f32>(ray + z), 20);
  store<u32>(to, (<u32>x) << 2, 24);
  store<u32>(to, (<u32>y) << 2, 28);
  store<u32>(to, (<u32>z) << 2, 32);
}

/**
 * Takes origin and direction of a ray to the coordinates of something placed; t keeps its meaning, so the direction is
 * not unit.
 */
function bringRay(ray: usize, placed: usize, to: usize): void {
  const m = placed + PLACED_INVERSE;
  const ox = load<f32>(ray),
    oy = load<f32>(ray, 4),
    oz = load<f32>(ray, 8),
    dx = load<f32>(ray, 16),
    dy = load<f32>(ray, 20),
    dz = load<f32>(ray, 24);
  for (let k: usize = 0; k < 12; k += 4) {
    const a = load<f32>(m + k),
      b = load<f32>(m + k, 12),
      c = load<f32>(m + k, 24);
    store<f32>(to + k, a * ox + b * oy + c * oz + load<f32>(m + k, 36));
    store<f32>(to + k, a * dx + b * dy + c * dz, 16);
  }
}

// The tree that is being walked: the placed object that it belongs to, 0 for the world's; and where the stack stood
// when the walk came to something placed.
let within: usize = 0;
let pausedTop: usize = 0;
const NOTHING: u32 = 8; // the code of an absent child

/** Leaves the closest hit of a ray in hitT, hitTriangle, hitU, hitV, hitPlaced. */
export function intersect(ray: usize): void {
  rayCount++;
  hitTriangle = -1;
  hitT = load<f32>(ray, 28);
  const root = load<u32>(PACK + P_ROOT),
    bottom = stack + ENTRIES;
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
  const local = stack + LOCAL_RAY,
    kind = load<u32>(placed, PLACED_KIND);
  bringRay(ray, placed, local);
  store<f32>(local, load<f32>(ray, 12), 12);
  within = placed;
  if (kind == PLACED_OBJECT) {
    walk(local, load<u32>(placed, PLACED_ROOT), pausedTop, pausedTop);
    return;
  }
  const t = meetShape(kind, local, load<f32>(ray, 12), hitT);
  if (t < hitT) {
    hitT = t;
    hitTriangle = 0;
    hitPlaced = placed;
  }
}

/**
 * Walks one tree for a hit not beyond hitT, from `current` and then what is on the stack. Ends with 0, or with the
 * record of something placed that has to be looked into first. With that done in here, by a call or by changing the
 * ray's vectors in place, the walk was 5 and 25 % slower, for want of registers.
 */
function walk(ray: usize, current: u32, bottom: usize, top: usize): usize {
  const vox = v128.load32_splat(ray),
    voy = v128.load32_splat(ray, 4),
    voz = v128.load32_splat(ray, 8);
  const vrx = f32x4.splat(reciprocal(load<f32>(ray, 16))),
    vry = f32x4.splat(reciprocal(load<f32>(ray, 20))),
    vrz = f32x4.splat(reciprocal(load<f32>(ray, 24)));
  const vtmin = v128.load32_splat(ray, 12);
  let vtmax = f32x4.splat(hitT);
  let bestT = hitT,
    bestU: f32 = 0,
    bestV: f32 = 0,
    bestId: i32 = -1,
    met: usize = 0;
  const scratch = stack,
    shear = stack + SHEAR;
  makeShear(ray, shear);
  while (true) {
    while (!(current & 8)) {
      const n: usize = current;
      const ax = f32x4.mul(f32x4.sub(v128.load(n), vox), vrx),
        bx = f32x4.mul(f32x4.sub(v128.load(n, 32), vox), vrx);
      const ay = f32x4.mul(f32x4.sub(v128.load(n, 64), voy), vry),
        by = f32x4.mul(f32x4.sub(v128.load(n, 96), voy), vry);
      const az = f32x4.mul(f32x4.sub(v128.load(n, 128), voz), vrz),
        bz = f32x4.mul(f32x4.sub(v128.load(n, 160), voz), vrz);
      const near0 = f32x4.pmax(
        f32x4.pmax(f32x4.pmin(ax, bx), f32x4.pmin(ay, by)),
        f32x4.pmax(f32x4.pmin(az, bz), vtmin)
      );
      const far0 = f32x4.pmin(
        f32x4.mul(
          f32x4.pmin(f32x4.pmin(f32x4.pmax(ax, bx), f32x4.pmax(ay, by)), f32x4.pmax(az, bz)),
          f32x4.splat(BOX_SLACK)
        ),
        vtmax
      );
      const cx = f32x4.mul(f32x4.sub(v128.load(n, 16), vox), vrx),
        dx = f32x4.mul(f32x4.sub(v128.load(n, 48), vox), vrx);
      const cy = f32x4.mul(f32x4.sub(v128.load(n, 80), voy), vry),
        dy = f32x4.mul(f32x4.sub(v128.load(n, 112), voy), vry);
      const cz = f32x4.mul(f32x4.sub(v128.load(n, 144), voz), vrz),
        dz = f32x4.mul(f32x4.sub(v128.load(n, 176), voz), vrz);
      const near1 = f32x4.pmax(
        f32x4.pmax(f32x4.pmin(cx, dx), f32x4.pmin(cy, dy)),
        f32x4.pmax(f32x4.pmin(cz, dz), vtmin)
      );
      const far1 = f32x4.pmin(
        f32x4.mul(
          f32x4.pmin(f32x4.pmin(f32x4.pmax(cx, dx), f32x4.pmax(cy, dy)), f32x4.pmax(cz, dz)),
          f32x4.splat(BOX_SLACK)
        ),
        vtmax
      );
      let mask = i32x4.bitmask(f32x4.le(near0, far0)) | (i32x4.bitmask(f32x4.le(near1, far1)) << 4);
      if (!mask) {
        current = 0;
        break;
      }
      const first = ctz(mask);
      mask &= mask - 1;
      if (!mask) {
        current = load<u32>(n + (first << 2), 192);
        continue;
      }
      // (child, t near) pairs, comparable as unsigned 64-bit numbers because t near is not negative
      const codes0 = v128.load(n, 192),
        codes1 = v128.load(n, 208);
      v128.store(scratch, v128.shuffle<i32>(codes0, near0, 0, 4, 1, 5));
      v128.store(scratch, v128.shuffle<i32>(codes0, near0, 2, 6, 3, 7), 16);
      v128.store(scratch, v128.shuffle<i32>(codes1, near1, 0, 4, 1, 5), 32);
      v128.store(scratch, v128.shuffle<i32>(codes1, near1, 2, 6, 3, 7), 48);
      const key0 = load<u64>(scratch + (first << 3)),
        key1 = load<u64>(scratch + (ctz(mask) << 3));
      mask &= mask - 1;
      if (!mask) {
        if (key0 < key1) {
          store<u64>(top, key1);
          current = <u32>key0;
        } else {
          store<u64>(top, key0);
          current = <u32>key1;
        }
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
        while (p > base && load<u64>(p - 8) < key) {
          store<u64>(p, load<u64>(p - 8));
          p -= 8;
        }
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
      const shx = v128.load32_splat(shear),
        shy = v128.load32_splat(shear, 4),
        shz = v128.load32_splat(shear, 8);
      const sox = v128.load32_splat(shear, 12),
        soy = v128.load32_splat(shear, 16),
        soz = v128.load32_splat(shear, 20);
      const rowX = load<u32>(shear, 24),
        rowY = load<u32>(shear, 28),
        rowZ = load<u32>(shear, 32);
      for (let blocks = current & 7; blocks > 0; blocks--, t += 160) {
        const az = f32x4.sub(v128.load(t + rowZ), soz),
          bz = f32x4.sub(v128.load(t + rowZ, 48), soz),
          cz = f32x4.sub(v128.load(t + rowZ, 96), soz);
        const ax = f32x4.sub(f32x4.sub(v128.load(t + rowX), sox), f32x4.mul(shx, az)),
          ay = f32x4.sub(f32x4.sub(v128.load(t + rowY), soy), f32x4.mul(shy, az));
        const bx = f32x4.sub(f32x4.sub(v128.load(t + rowX, 48), sox), f32x4.mul(shx, bz)),
          by = f32x4.sub(f32x4.sub(v128.load(t + rowY, 48), soy), f32x4.mul(shy, bz));
        const cx = f32x4.sub(f32x4.sub(v128.load(t + rowX, 96), sox), f32x4.mul(shx, cz)),
          cy = f32x4.sub(f32x4.sub(v128.load(t + rowY, 96), soy), f32x4.mul(shy, cz));
        const a = f32x4.sub(f32x4.mul(cx, by), f32x4.mul(cy, bx)),
          b = f32x4.sub(f32x4.mul(ax, cy), f32x4.mul(ay, cx)),
          c = f32x4.sub(f32x4.mul(bx, ay), f32x4.mul(by, ax));
        const den = f32x4.add(f32x4.add(a, b), c),
          sign = v128.and(den, i32x4.splat(0x80000000)),
          size = v128.xor(den, sign);
        const u = v128.xor(b, sign),
          w = v128.xor(c, sign),
          zero = f32x4.splat(0);
        let ok = v128.and(
          v128.and(f32x4.ge(v128.xor(a, sign), zero), f32x4.ge(u, zero)),
          v128.and(f32x4.ge(w, zero), f32x4.ne(den, zero))
        );
        if (!i32x4.bitmask(ok)) continue;
        const distance = f32x4.mul(
          shz,
          v128.xor(f32x4.add(f32x4.add(f32x4.mul(a, az), f32x4.mul(b, bz)), f32x4.mul(c, cz)), sign)
        );
        ok = v128.and(
          ok,
          v128.and(f32x4.lt(f32x4.mul(size, vtmin), distance), f32x4.le(distance, f32x4.mul(size, vtmax)))
        );
        let mask = i32x4.bitmask(ok);
        if (!mask) continue;
        const inverse = f32x4.div(f32x4.splat(1), size);
        v128.store(scratch, f32x4.mul(distance, inverse));
        let best = -1;
        do {
          const lane = ctz(mask),
            lt = load<f32>(scratch + (lane << 2));
          if (lt <= bestT) {
            bestT = lt;
            best = lane;
          }
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
        hitT = bestT;
        hitU = bestU;
        hitV = bestV;
        hitPlaced = within;
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
 * Whether anything opaque lies on the ray; if not, shadowR, shadowG, shadowB hold what transparent surfaces on the way let
 * through. Each triangle lies in one leaf, so their factors may be multiplied in any order but are visited in one
 * order only, which keeps the product the same everywhere. `aimedAt`: the record of a shape that the ray goes to, which
 * is not in its own way however it was rounded; 0 for none.
 */
export function occluded(ray: usize, aimedAt: usize): bool {
  rayCount++;
  shadowRayCount++;
  shadowR = 1;
  shadowG = 1;
  shadowB = 1;
  const root = load<u32>(PACK + P_ROOT),
    bottom = stack + ENTRIES;
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
  const local = stack + LOCAL_RAY,
    kind = load<u32>(placed, PLACED_KIND),
    end = load<f32>(ray, 28);
  bringRay(ray, placed, local);
  if (kind != PLACED_OBJECT) return meetShape(kind, local, load<f32>(ray, 12), end) < end;
  store<f32>(local, load<f32>(ray, 12), 12);
  store<f32>(local, end, 28);
  within = placed;
  worldRay = ray;
  return walkShadow(local, load<u32>(placed, PLACED_ROOT), pausedTop, pausedTop) == BLOCKED;
}

/**
 * As walk; ends with BLOCKED when something opaque lies on the ray. The box and triangle tests stand in both walks: in
 * a function of their own their dozen vectors would have to go through memory.
 */
function walkShadow(ray: usize, current: u32, bottom: usize, top: usize): usize {
  const vox = v128.load32_splat(ray),
    voy = v128.load32_splat(ray, 4),
    voz = v128.load32_splat(ray, 8);
  const vrx = f32x4.splat(reciprocal(load<f32>(ray, 16))),
    vry = f32x4.splat(reciprocal(load<f32>(ray, 20))),
    vrz = f32x4.splat(reciprocal(load<f32>(ray, 24)));
  const vtmin = v128.load32_splat(ray, 12),
    vtmax = v128.load32_splat(ray, 28);
  const scratch = stack,
    shear = stack + SHEAR;
  makeShear(ray, shear);
  while (true) {
    while (!(current & 8)) {
      const n: usize = current;
      const ax = f32x4.mul(f32x4.sub(v128.load(n), vox), vrx),
        bx = f32x4.mul(f32x4.sub(v128.load(n, 32), vox), vrx);
      const ay = f32x4.mul(f32x4.sub(v128.load(n, 64), voy), vry),
        by = f32x4.mul(f32x4.sub(v128.load(n, 96), voy), vry);
      const az = f32x4.mul(f32x4.sub(v128.load(n, 128), voz), vrz),
        bz = f32x4.mul(f32x4.sub(v128.load(n, 160), voz), vrz);
      const near0 = f32x4.pmax(
        f32x4.pmax(f32x4.pmin(ax, bx), f32x4.pmin(ay, by)),
        f32x4.pmax(f32x4.pmin(az, bz), vtmin)
      );
      const far0 = f32x4.pmin(
        f32x4.mul(
          f32x4.pmin(f32x4.pmin(f32x4.pmax(ax, bx), f32x4.pmax(ay, by)), f32x4.pmax(az, bz)),
          f32x4.splat(BOX_SLACK)
        ),
        vtmax
      );
      const cx = f32x4.mul(f32x4.sub(v128.load(n, 16), vox), vrx),
        dx = f32x4.mul(f32x4.sub(v128.load(n, 48), vox), vrx);
      const cy = f32x4.mul(f32x4.sub(v128.load(n, 80), voy), vry),
        dy = f32x4.mul(f32x4.sub(v128.load(n, 112), voy), vry);
      const cz = f32x4.mul(f32x4.sub(v128.load(n, 144), voz), vrz),
        dz = f32x4.mul(f32x4.sub(v128.load(n, 176), voz), vrz);
      const near1 = f32x4.pmax(
        f32x4.pmax(f32x4.pmin(cx, dx), f32x4.pmin(cy, dy)),
        f32x4.pmax(f32x4.pmin(cz, dz), vtmin)
      );
      const far1 = f32x4.pmin(
        f32x4.mul(
          f32x4.pmin(f32x4.pmin(f32x4.pmax(cx, dx), f32x4.pmax(cy, dy)), f32x4.pmax(cz, dz)),
          f32x4.splat(BOX_SLACK)
        ),
        vtmax
      );
      let mask = i32x4.bitmask(f32x4.le(near0, far0)) | (i32x4.bitmask(f32x4.le(near1, far1)) << 4);
      if (!mask) {
        current = 0;
        break;
      }
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
      const shx = v128.load32_splat(shear),
        shy = v128.load32_splat(shear, 4),
        shz = v128.load32_splat(shear, 8);
      const sox = v128.load32_splat(shear, 12),
        soy = v128.load32_splat(shear, 16),
        soz = v128.load32_splat(shear, 20);
      const rowX = load<u32>(shear, 24),
        rowY = load<u32>(shear, 28),
        rowZ = load<u32>(shear, 32);
      for (let blocks = current & 7; blocks > 0; blocks--, t += 160) {
        const az = f32x4.sub(v128.load(t + rowZ), soz),
          bz = f32x4.sub(v128.load(t + rowZ, 48), soz),
          cz = f32x4.sub(v128.load(t + rowZ, 96), soz);
        const ax = f32x4.sub(f32x4.sub(v128.load(t + rowX), sox), f32x4.mul(shx, az)),
          ay = f32x4.sub(f32x4.sub(v128.load(t + rowY), soy), f32x4.mul(shy, az));
        const bx = f32x4.sub(f32x4.sub(v128.load(t + rowX, 48), sox), f32x4.mul(shx, bz)),
          by = f32x4.sub(f32x4.sub(v128.load(t + rowY, 48), soy), f32x4.mul(shy, bz));
        const cx = f32x4.sub(f32x4.sub(v128.load(t + rowX, 96), sox), f32x4.mul(shx, cz)),
          cy = f32x4.sub(f32x4.sub(v128.load(t + rowY, 96), soy), f32x4.mul(shy, cz));
        const a = f32x4.sub(f32x4.mul(cx, by), f32x4.mul(cy, bx)),
          b = f32x4.sub(f32x4.mul(ax, cy), f32x4.mul(ay, cx)),
          c = f32x4.sub(f32x4.mul(bx, ay), f32x4.mul(by, ax));
        const den = f32x4.add(f32x4.add(a, b), c),
          sign = v128.and(den, i32x4.splat(0x80000000)),
          size = v128.xor(den, sign);
        const u = v128.xor(b, sign),
          w = v128.xor(c, sign),
          zero = f32x4.splat(0);
        let ok = v128.and(
          v128.and(f32x4.ge(v128.xor(a, sign), zero), f32x4.ge(u, zero)),
          v128.and(f32x4.ge(w, zero), f32x4.ne(den, zero))
        );
        if (!i32x4.bitmask(ok)) continue;
        const distance = f32x4.mul(
          shz,
          v128.xor(f32x4.add(f32x4.add(f32x4.mul(a, az), f32x4.mul(b, bz)), f32x4.mul(c, cz)), sign)
        );
        ok = v128.and(
          ok,
          v128.and(f32x4.lt(f32x4.mul(size, vtmin), distance), f32x4.le(distance, f32x4.mul(size, vtmax)))
        );
        let mask = i32x4.bitmask(ok);
        if (!mask) continue;
        if (mask & ~i32x4.bitmask(v128.load(t, 144))) return BLOCKED;
        const inverse = f32x4.div(f32x4.splat(1), size);
        v128.store(scratch, f32x4.mul(u, inverse));
        v128.store(scratch, f32x4.mul(w, inverse), 16);
        do {
          const lane = ctz(mask) << 2;
          passTransparent(
            load<i32>(t + lane, 144) & 0x7fffffff,
            within,
            load<f32>(scratch + lane),
            load<f32>(scratch + lane, 16),
            within ? worldRay : ray
          );
          shadowR *= transmittedR;
          shadowG *= transmittedG;
          shadowB *= transmittedB;
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
