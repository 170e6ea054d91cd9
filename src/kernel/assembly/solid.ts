// Solid textures: patterns that fill space, so that every cut through a thing shows them rightly and nothing repeats.
// Each gives three weights (sum 1) for the material's three colours, a height and a change of roughness, at a place in
// a part's own coordinates. `width` is the footprint to be averaged over: what is finer fades to its mean, by the
// wavelength of each octave (Norton, Rockwood, Skolber 1982, Clamping) or, for mortar lines, by their exact box filter
// (Ebert and others, Texturing and Modeling, chapter 2). Sources: gradient noise after Perlin 2002, its lattice hashed
// in 32 bits, so that it has no period; cells after Worley 1996.
import {
  SOLID_AXIS,
  SOLID_BOARDS,
  SOLID_BRICK,
  SOLID_CLOTH,
  SOLID_COLORS,
  SOLID_CONCRETE,
  SOLID_HERRINGBONE,
  SOLID_KIND,
  SOLID_RIBS,
  SOLID_SEED,
  SOLID_STONE,
  SOLID_TERRAZZO,
  SOLID_VARIATION,
  SOLID_WOOD
} from './layout';
import { clamp01 } from './math';

export let weight0: f32 = 0;
export let weight1: f32 = 0;
export let weight2: f32 = 0;
/** 0 to 1 or so, in units of the material's relief; and -1 to 1, in units of its change of roughness. */
export let height: f32 = 0;
export let rough: f32 = 0;
export let solidR: f32 = 0;
export let solidG: f32 = 0;
export let solidB: f32 = 0;

// @ts-ignore: decorator
@inline
function scramble(h: u32): u32 {
  h ^= h >> 16;
  h *= 0x7feb352d;
  h ^= h >> 15;
  h *= 0x846ca68b;
  return h ^ (h >> 16); // lowbias32, Wellons 2018
}

function hash(x: i32, y: i32, z: i32, seed: u32): u32 {
  return scramble((<u32>x * 0x8da6b343) ^ scramble((<u32>y * 0xd8163841) ^ scramble((<u32>z * 0xcb1ab31f) ^ seed)));
}

/** [0, 1) from a hash, by its `part`th nine bits. */
// @ts-ignore: decorator
@inline
function share(h: u32, part: u32): f32 {
  return <f32>((h >> (part * 9)) & 511) * <f32>0.001953125;
}

// @ts-ignore: decorator
@inline
function step(from: f32, to: f32, x: f32): f32 {
  const t = clamp01((x - from) / (to - from));
  return t * t * (<f32>3 - <f32>2 * t);
}

/** Slope of a lattice corner times the way from it: one of twelve edges of a cube. */
function slope(h: u32, x: f32, y: f32, z: f32): f32 {
  const k = h & 15,
    u = k < 8 ? x : y,
    v = k < 4 ? y : k == 12 || k == 14 ? x : z;
  return (k & 1 ? -u : u) + (k & 2 ? -v : v);
}

/** Gradient noise, about -1 to 1 with mean 0. */
function noise(x: f32, y: f32, z: f32, seed: u32): f32 {
  const fx = floor<f32>(x),
    fy = floor<f32>(y),
    fz = floor<f32>(z),
    i = <i32>fx,
    j = <i32>fy,
    k = <i32>fz;
  x -= fx;
  y -= fy;
  z -= fz;
  const u = x * x * x * (x * (x * 6 - 15) + 10),
    v = y * y * y * (y * (y * 6 - 15) + 10),
    w = z * z * z * (z * (z * 6 - 15) + 10);
  const a = slope(hash(i, j, k, seed), x, y, z),
    b = slope(hash(i + 1, j, k, seed), x - 1, y, z);
  const c = slope(hash(i, j + 1, k, seed), x, y - 1, z),
    d = slope(hash(i + 1, j + 1, k, seed), x - 1, y - 1, z);
  const e = slope(hash(i, j, k + 1, seed), x, y, z - 1),
    f = slope(hash(i + 1, j, k + 1, seed), x - 1, y, z - 1);
  const g = slope(hash(i, j + 1, k + 1, seed), x, y - 1, z - 1),
    h = slope(hash(i + 1, j + 1, k + 1, seed), x - 1, y - 1, z - 1);
  const low = a + u * (b - a) + v * (c + u * (d - c) - a - u * (b - a)),
    high = e + u * (f - e) + v * (g + u * (h - g) - e - u * (f - e));
  return low + w * (high - low);
}

/** What is left of detail with a period of 1 in a footprint of `width` periods. */
// @ts-ignore: decorator
@inline
function kept(width: f32): f32 {
  return clamp01((<f32>0.75 - width) * 2);
}

/** Whether so wide a footprint sees no relief any more. */
export function isSmooth(width: f32): bool {
  return kept(width) <= 0;
}

/** Noise that a footprint of `width` of its periods leaves. */
// @ts-ignore: decorator
@inline
function detail(x: f32, y: f32, z: f32, width: f32, seed: u32): f32 {
  const k = kept(width);
  return k > 0 ? k * noise(x, y, z, seed) : 0;
}

/** Octaves of noise, each twice as fine and half as strong; about -1 to 1. */
function octaves(x: f32, y: f32, z: f32, width: f32, count: i32, seed: u32): f32 {
  let sum: f32 = 0,
    amplitude: f32 = 0.5,
    f: f32 = 1;
  for (let i = 0; i < count; i++, f *= 2, amplitude *= 0.5) {
    const k = kept(width * f);
    if (k <= 0) break;
    sum += k * amplitude * noise(x * f, y * f, z * f, seed + i);
  }
  return sum * <f32>1.6;
}

/** Share of a footprint that lies on lines `line` wide, one a period. */
function lines(x: f32, line: f32, width: f32): f32 {
  width = max<f32>(width, <f32>0.01);
  const a = x - width * <f32>0.5,
    b = x + width * <f32>0.5,
    fa = floor<f32>(a),
    fb = floor<f32>(b);
  return (fb * line + min<f32>(b - fb, line) - fa * line - min<f32>(a - fa, line)) / width;
}

// @ts-ignore: decorator
@inline
function weigh(tone: f32, accent: f32): void {
  tone = clamp01(tone);
  accent = clamp01(accent);
  weight0 = (<f32>1 - accent) * (<f32>1 - tone);
  weight1 = (<f32>1 - accent) * tone;
  weight2 = accent;
}

// What fades with distance fades to these means, measured over a large block from near.
const PORES: f32 = 0.066;
const VEINS: f32 = 0.036;
const HOLES: f32 = 0.0071;
const LARGE_CHIPS: f32 = 0.427;
const SMALL_CHIPS: f32 = 0.243;
const DEEP: f32 = 0.1485; // between threads

/**
 * Rings about a trunk that runs along x, far enough off that a board shows arcs; dark late wood, fibres, pores. One
 * unit is a ring.
 */
function wood(x: f32, y: f32, z: f32, width: f32, seed: u32, own: u32): void {
  // each part is sawn from elsewhere
  const h = scramble(own * 747796405 + seed),
    cy = y + <f32>5 + <f32>9 * share(h, 0),
    cz = z + (share(h, 1) - <f32>0.5) * <f32>16;
  x += <f32>1000 * share(h, 2);
  const sharp = kept(width);
  let late: f32 = 0.33,
    tall: f32 = 0.5;
  if (sharp > 0) {
    const bow = noise(x * <f32>0.03, y * <f32>0.05, z * <f32>0.05, seed) * <f32>1.6;
    const r =
      sqrt<f32>(cy * cy + cz * cz) +
      bow +
      <f32>0.35 * octaves(x * <f32>0.06, y * <f32>0.35, z * <f32>0.35, width * <f32>0.35, 3, seed + 11);
    const ring = floor<f32>(r),
      f = r - ring;
    tall += sharp * (share(hash(<i32>ring, 0, 0, seed), 0) - tall);
    late += sharp * (step(<f32>0.35, <f32>0.92, f) * (<f32>1 - step(<f32>0.94, 1, f)) - late);
  }
  const fibre = detail(x * <f32>0.12, y * 5, z * 5, width * 5, seed + 3),
    fine = kept(width * 7);
  let pore = PORES;
  if (fine > 0) pore += fine * (step(<f32>0.25, <f32>0.6, noise(x * <f32>0.3, y * 7, z * 7, seed + 5)) - pore);
  weigh(
    <f32>0.82 -
      late * (<f32>0.55 + <f32>0.3 * tall) +
      <f32>0.14 * fibre +
      <f32>0.15 * detail(x * <f32>0.02, y * <f32>0.2, z * <f32>0.2, width * <f32>0.2, seed + 7),
    pore * <f32>0.55
  );
  height = <f32>0.6 + <f32>0.15 * fibre - <f32>0.6 * pore;
  rough = <f32>0.4 * pore - <f32>0.3 * late;
}

/** Clouded stone with veins where two folded fields cross zero. One unit is the way between veins. */
function stone(x: f32, y: f32, z: f32, width: f32, seed: u32): void {
  const bendX = octaves(x * <f32>0.7, y * <f32>0.7, z * <f32>0.7, width, 4, seed),
    bendY = octaves(x * <f32>0.7 + 31, y * <f32>0.7, z * <f32>0.7, width, 4, seed);
  const fold = noise(x * <f32>0.8 + bendX, y * <f32>0.8 + bendY, z * <f32>0.8, seed + 9);
  const thin = max<f32>(<f32>0.05, width),
    vein =
      VEINS +
      kept(width * 2) *
        (min<f32>(1, <f32>0.05 / thin) *
          (<f32>1 - step(0, thin, abs<f32>(fold))) *
          clamp01(<f32>0.5 + <f32>0.9 * bendY) -
          VEINS);
  const grain = detail(x * 40, y * 40, z * 40, width * 40, seed + 2);
  weigh(<f32>0.55 + <f32>0.5 * bendX + <f32>0.06 * grain, vein);
  height = <f32>0.5 - <f32>0.3 * vein + <f32>0.1 * grain;
  rough = <f32>0.3 * grain;
}

const SMALLEST_HOLE: f32 = 0.12;
const LARGEST_HOLE: f32 = 0.32;
/** Blotches of the pour, fine sand, and the holes that air left. One unit is a blotch. */
function concrete(x: f32, y: f32, z: f32, width: f32, seed: u32): void {
  const cloud = octaves(x, y, z, width, 5, seed),
    sand = detail(x * 60, y * 60, z * 60, width * 60, seed + 1),
    clear = kept(width * 40);
  let hole = HOLES;
  if (clear > 0) {
    cells(x * 40, y * 40, z * 40, seed + 4, LARGEST_HOLE);
    const radius = SMALLEST_HOLE + (LARGEST_HOLE - SMALLEST_HOLE) * share(cellHash, 0);
    hole +=
      clear * ((share(cellHash, 1) < <f32>0.22 ? <f32>1 - step(radius * <f32>0.7, radius, nearest) : <f32>0) - hole);
  }
  weigh(<f32>0.5 + <f32>0.45 * cloud + <f32>0.12 * sand, hole * <f32>0.8);
  height = <f32>0.8 - <f32>0.8 * hole + <f32>0.08 * cloud + <f32>0.05 * sand;
  rough = <f32>0.5 * cloud;
}

/**
 * Bricks laid in running bond, on each side of a block seen from its front. One unit is a brick's length with its
 * joint.
 */
function brick(x: f32, y: f32, z: f32, width: f32, seed: u32, nx: f32, ny: f32, nz: f32): void {
  const flat = abs<f32>(ny) > <f32>0.8,
    side = abs<f32>(nx) > abs<f32>(nz);
  let u = side && !flat ? z : x,
    v = (flat ? z : y) * <f32>3.25;
  const row = floor<f32>(v);
  u += <f32>(<i32>row & 1) * <f32>0.5;
  // edges are not straight: burnt clay
  const wave = <f32>0.012 * detail(x * 10, y * 10, z * 10, width * 10, seed + 6);
  u += wave;
  v += wave * <f32>3.25;
  const across = lines(u, <f32>0.042, width),
    along = lines(v, <f32>0.14, width * <f32>3.25),
    mortar = <f32>1 - (<f32>1 - across) * (<f32>1 - along);
  const h = hash(<i32>floor<f32>(u), <i32>row, <i32>flat + 2 * <i32>side, seed),
    far = kept(width);
  const grain = octaves(x * 12, y * 12, z * 12, width * 12, 3, seed + 8);
  weigh(<f32>0.5 + far * (share(h, 0) - <f32>0.5) * <f32>0.9 + <f32>0.25 * grain, mortar);
  // soft edges, for the light to catch
  const edge =
    far * (lines(u + <f32>0.02, <f32>0.082, <f32>0.05) + lines(v + <f32>0.065, <f32>0.27, <f32>0.16)) * <f32>0.5;
  height = (<f32>1 - min<f32>(1, mortar * <f32>0.5 + edge)) * <f32>0.9 + <f32>0.12 * grain;
  rough = <f32>0.4 * grain + mortar * <f32>0.5;
}

/** Share of a chip at the place that cells was called for, `soft` about its edge. */
// @ts-ignore: decorator
@inline
function chipEdge(edge: f32, soft: f32): f32 {
  return step(edge - soft * <f32>0.5, edge + soft * <f32>0.5, second - nearest);
}

// @ts-ignore: decorator
@inline
function chipTone(): f32 {
  const tone = share(cellHash, 1);
  return tone < <f32>0.5 ? <f32>0.12 * tone : <f32>0.88 + <f32>0.12 * tone;
}

/** Chips of marble in a ground, of two sizes. One unit is a large chip. */
function terrazzo(x: f32, y: f32, z: f32, width: f32, seed: u32): void {
  const far = kept(width * <f32>0.8),
    near = kept(width * <f32>2.1);
  // shares that large chips have of all, and small ones of what large ones leave; each with its tone from dark to light
  let large = LARGE_CHIPS,
    largeTone: f32 = 0.5,
    small = SMALL_CHIPS,
    smallTone: f32 = 0.5;
  if (far > 0) {
    const bx = x + <f32>0.1 * detail(x * 5, y * 5, z * 5, width * 5, seed),
      by = y + <f32>0.1 * detail(x * 5 + 17, y * 5, z * 5, width * 5, seed),
      bz = z;
    cells(bx, by, bz, seed + 1, EVERYWHERE);
    const chip = chipEdge(<f32>0.145, max<f32>(<f32>0.03, width)) * (share(cellHash, 0) < <f32>0.8 ? <f32>1 : <f32>0);
    large += far * (chip - large);
    largeTone += far * (chipTone() - largeTone);
    if (near > 0 && chip < 1) {
      cells(bx * <f32>2.6, by * <f32>2.6, bz * <f32>2.6, seed + 2, EVERYWHERE);
      small +=
        near *
        (chipEdge(<f32>0.23, max<f32>(<f32>0.06, width * <f32>2.6)) *
          (share(cellHash, 0) < <f32>0.7 ? <f32>1 : <f32>0) -
          small);
      smallTone += near * (chipTone() - smallTone);
    }
  }
  small *= <f32>1 - large;
  const inside = large + small,
    light = large * largeTone + small * smallTone;
  weight0 = <f32>1 - inside;
  weight1 = inside - light;
  weight2 = light;
  height = <f32>0.5;
  rough = <f32>0.5 - inside;
}

/** Plain weave: warp and weft pass over each other in turn. One unit is the way between threads. */
function cloth(x: f32, y: f32, z: f32, width: f32, seed: u32, nx: f32, ny: f32, nz: f32): void {
  rough = 0;
  const threads = kept(width * <f32>0.1);
  if (threads <= 0) {
    weigh(<f32>0.5, DEEP);
    height = <f32>0.55;
    return;
  }
  const ax = abs<f32>(nx),
    ay = abs<f32>(ny),
    az = abs<f32>(nz);
  let u = x,
    v = y;
  if (ay >= ax && ay >= az) v = z;
  else if (ax > az) u = z;
  u += <f32>0.12 * noise(x * <f32>0.2, y * <f32>0.2, z * <f32>0.2, seed);
  v += <f32>0.12 * noise(x * <f32>0.2 + 9, y * <f32>0.2, z * <f32>0.2, seed);
  const i = floor<f32>(u),
    j = floor<f32>(v),
    p = u - i - <f32>0.5,
    q = v - j - <f32>0.5,
    warp = ((<i32>i + <i32>j) & 1) == 0,
    near = kept(width * <f32>0.9);
  // round across, and bowed over where it lies on top
  const across = warp ? p : q,
    along = warp ? q : p;
  const top = (<f32>1 - <f32>4 * across * across) * (<f32>1 - <f32>1.6 * along * along);
  const uneven =
    threads * (share(hash(warp ? <i32>i : 0, warp ? 0 : <i32>j, <i32>warp, seed), 0) - <f32>0.5) * <f32>0.5 +
    <f32>0.2 * detail(u * (warp ? <f32>6 : <f32>1.2), v * (warp ? <f32>1.2 : <f32>6), z, width * 4, seed + 3);
  weigh(
    <f32>0.5 + near * (warp ? <f32>0.4 : <f32>-0.4) + uneven,
    near * (<f32>1 - step(0, <f32>0.5, top)) * <f32>0.9 + (<f32>1 - near) * DEEP
  );
  height = near * max<f32>(top, 0) + (<f32>1 - near) * <f32>0.55;
}

/** Half-round ribs side by side, along x, not quite straight. One unit is the way between two. */
function ribs(x: f32, y: f32, z: f32, width: f32, seed: u32, ny: f32, nz: f32): void {
  const bow = <f32>0.3 * detail(x * <f32>0.035, y * <f32>0.03, z * <f32>0.03, width * <f32>0.035, seed),
    across = (abs<f32>(ny) > abs<f32>(nz) ? z : y) + bow,
    f = across - floor<f32>(across) - <f32>0.5,
    mean: f32 = <f32>2 / <f32>3,
    tall = mean + kept(width) * (<f32>1 - <f32>4 * f * f - mean);
  weigh(tall, 0);
  height = tall;
  rough = 0;
}

// Of a board's width: its joint, its length, and a year's ring in it; strips of a herringbone are this long.
const JOINT: f32 = 0.016;
const BOARD_LENGTH: f32 = 9;
const RINGS_ACROSS: f32 = 20;
const STRIP: i32 = 6;
// How far boards differ in tone, of the whole way between late and early wood.
const TONES: f32 = 0.55;

/**
 * Boards side by side, each sawn from elsewhere and a little lighter or darker, their ends never in line; or strips laid
 * in herringbone. On floors and ceilings they lie along x, on walls too, on the sides that x meets along z. One unit is
 * the width of a board.
 */
function boards(
  x: f32,
  y: f32,
  z: f32,
  width: f32,
  seed: u32,
  own: u32,
  nx: f32,
  ny: f32,
  nz: f32,
  herringbone: bool
): void {
  const ax = abs<f32>(nx),
    ay = abs<f32>(ny),
    az = abs<f32>(nz);
  let u = x,
    v = z,
    depth = y,
    face = 0;
  if (az > ay && az >= ax) {
    v = y;
    depth = z;
    face = 1;
  } else if (ax > ay && ax > az) {
    u = z;
    v = y;
    depth = x;
    face = 2;
  }
  let along: f32, across: f32, length: f32;
  let h: u32;
  if (herringbone) {
    const fu = floor<f32>(u),
      fv = floor<f32>(v),
      i = <i32>fu,
      j = <i32>fv;
    let k = (i - j) % (2 * STRIP);
    if (k < 0) k += 2 * STRIP;
    length = <f32>STRIP;
    if (k < STRIP) {
      along = <f32>k + u - fu;
      across = v - fv;
      h = hash(i - k, j, face, seed);
    } else {
      const down = 2 * STRIP - 1 - k;
      along = <f32>down + v - fv;
      across = u - fu;
      h = hash(i, j - down, face + 4, seed);
    }
  } else {
    const row = floor<f32>(v);
    length = BOARD_LENGTH;
    const ahead = u + length * share(hash(<i32>row, face, 0, seed), 0),
      board = floor<f32>(ahead / length);
    along = ahead - board * length;
    across = v - row;
    h = hash(<i32>row, <i32>board, face + 8, seed);
  }
  wood(
    along * RINGS_ACROSS,
    (across - <f32>0.5) * RINGS_ACROSS,
    depth * RINGS_ACROSS,
    width * RINGS_ACROSS,
    seed,
    h ^ own
  );
  const far = kept(width * <f32>0.4),
    tone = far * TONES * (share(h, 1) - <f32>0.5),
    moved = tone > 0 ? tone * weight0 : tone * weight1;
  weight0 -= moved;
  weight1 += moved;
  // beside a joint, or on it; from afar its share
  const edge = min<f32>(min<f32>(across, <f32>1 - across), min<f32>(along, length - along)),
    soft = max<f32>(width, <f32>0.006),
    mean = JOINT * (<f32>1 + <f32>1 / length),
    near = kept(width * 2),
    joint = mean + near * (clamp01((JOINT * <f32>0.5 - edge) / soft + <f32>0.5) - mean);
  weight0 *= <f32>1 - joint;
  weight1 *= <f32>1 - joint;
  weight2 += joint * (<f32>1 - weight2);
  // the arris is broken, for the light to catch
  height = (<f32>0.3 + <f32>0.1 * height) * (<f32>1 - joint) + <f32>0.6 * near * step(0, <f32>0.03, edge);
  rough = rough * (<f32>1 - joint) + joint;
}

const EVERYWHERE: f32 = 9;
let nearest: f32 = 0;
let second: f32 = 0;
let cellHash: u32 = 0;
/**
 * Distances to the two nearest of the points scattered one a cell, as far as they are within `reach`, and the hash of
 * the nearest's cell. Cells whose wall is farther than the second are passed over.
 */
function cells(x: f32, y: f32, z: f32, seed: u32, reach: f32): void {
  const fx = floor<f32>(x),
    fy = floor<f32>(y),
    fz = floor<f32>(z),
    px = x - fx,
    py = y - fy,
    pz = z - fz;
  nearest = reach * reach;
  second = nearest;
  for (let c = 0; c < 3; c++) {
    const k = ahead(c),
      wallZ = wall(pz, k);
    if (wallZ >= second) continue;
    for (let b = 0; b < 3; b++) {
      const j = ahead(b),
        wallY = wallZ + wall(py, j);
      if (wallY >= second) continue;
      for (let a = 0; a < 3; a++) {
        const i = ahead(a);
        if (wallY + wall(px, i) >= second) continue;
        const h = hash(<i32>fx + i, <i32>fy + j, <i32>fz + k, seed);
        const dx = fx + <f32>i + share(h, 0) - x,
          dy = fy + <f32>j + share(h, 1) - y,
          dz = fz + <f32>k + share(h, 2) - z,
          d = dx * dx + dy * dy + dz * dz;
        if (d < nearest) {
          second = nearest;
          nearest = d;
          cellHash = h;
        } else if (d < second) second = d;
      }
    }
  }
  nearest = sqrt<f32>(nearest);
  second = sqrt<f32>(second);
  cellHash = scramble(cellHash + 77);
}

/** A cell's own place first, then the one before it and the one behind. */
// @ts-ignore: decorator
@inline
function ahead(turn: i32): i32 {
  return turn == 0 ? 0 : turn == 1 ? -1 : 1;
}

/** Squared way along an axis from a place in a cell to the cell beside it. */
// @ts-ignore: decorator
@inline
function wall(place: f32, beside: i32): f32 {
  const way: f32 = beside == 0 ? 0 : beside < 0 ? place : <f32>1 - place;
  return way * way;
}

/**
 * Evaluates the record at `solid` (layout.ts) at a place in units of its size, with the surface's normal there; `own`
 * tells parts apart.
 */
export function evaluateSolid(
  solid: usize,
  x: f32,
  y: f32,
  z: f32,
  width: f32,
  nx: f32,
  ny: f32,
  nz: f32,
  own: u32
): void {
  const kind = load<u32>(solid, SOLID_KIND),
    seed = load<u32>(solid, SOLID_SEED),
    axis = load<u32>(solid, SOLID_AXIS);
  if (axis == 1) {
    const t = x;
    x = y;
    y = z;
    z = t;
    const n = nx;
    nx = ny;
    ny = nz;
    nz = n;
  } else if (axis == 2) {
    const t = x;
    x = z;
    z = y;
    y = t;
    const n = nx;
    nx = nz;
    nz = ny;
    ny = n;
  }
  if (kind == SOLID_WOOD) wood(x, y, z, width, seed, own);
  else if (kind == SOLID_STONE) stone(x, y, z, width, seed);
  else if (kind == SOLID_CONCRETE) concrete(x, y, z, width, seed);
  else if (kind == SOLID_BRICK) brick(x, y, z, width, seed, nx, ny, nz);
  else if (kind == SOLID_TERRAZZO) terrazzo(x, y, z, width, seed);
  else if (kind == SOLID_CLOTH) cloth(x, y, z, width, seed, nx, ny, nz);
  else if (kind == SOLID_BOARDS) boards(x, y, z, width, seed, own, nx, ny, nz, false);
  else if (kind == SOLID_RIBS) ribs(x, y, z, width, seed, ny, nz);
  else if (kind == SOLID_HERRINGBONE) boards(x, y, z, width, seed, own, nx, ny, nz, true);
  else {
    const n = octaves(x, y, z, width, 6, seed);
    weigh(<f32>0.5 + <f32>0.6 * n, 0);
    height = <f32>0.5 + <f32>0.5 * n;
    rough = n;
  }
  const c = solid + SOLID_COLORS;
  solidR = weight0 * load<f32>(c) + weight1 * load<f32>(c, 12) + weight2 * load<f32>(c, 24);
  solidG = weight0 * load<f32>(c, 4) + weight1 * load<f32>(c, 16) + weight2 * load<f32>(c, 28);
  solidB = weight0 * load<f32>(c, 8) + weight1 * load<f32>(c, 20) + weight2 * load<f32>(c, 32);
  const variation = load<f32>(solid, SOLID_VARIATION);
  if (variation > 0) {
    // each part is a little lighter or darker, by up to a third, and warmer or cooler
    const h = scramble(own * 747796405 + seed + 101),
      light = <f32>1 + variation * <f32>0.66 * (share(h, 0) - <f32>0.5),
      warm = variation * <f32>0.12 * (share(h, 1) - <f32>0.5);
    solidR *= light * (<f32>1 + warm);
    solidG *= light;
    solidB *= light * (<f32>1 - warm);
  }
}
