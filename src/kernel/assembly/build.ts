// Builds the 8-wide BVH of traverse.ts from triangles by a binned surface area heuristic, in place. A large tree is
// built in parts: one thread splits until parts are small enough, any number of threads builds each into a region of
// its own, and one moves them together in their order. So the same input gives the same bytes on any machine, with any
// number of threads. Sources: Wald 2007 (binned SAH); the cost of a leaf counts blocks of four triangles, not
// triangles. Of many references one in eight stands for the rest, but for those that are large against the range:
// leaving these out too made shadow rays 60 % slower, because walls were missed. Axes much shorter than the longest are
// not split along. Both together make rays 5 to 25 % faster in the room of the bench and cost none in the demo's
// scenes. Cost: 1.5 million triangles a second on one core (bench/RESULTS.md); memory 32 bytes a triangle of scratch,
// about 50 of result. Tried and dropped: fewer bins for small ranges (slower); splitting along the half-long axes alone
// (shadow rays a fifth slower).
//
// Reference, 32 bytes: box minimum xyz, what it holds, maximum xyz, pad. What it holds is a triangle index, or with bit
// 29 the address of something placed over 128; bit 30 is set always, so that the lane is never a denormal.
// Record on the build stack, 80 bytes: box min, box max, centroid min, centroid max (16 each), u32 begin, u32 end, f32
// area. One of a part that waits has besides, at 12, how many placed things it holds, and at 76 where its code goes;
// one of a part that is built: code, nodes, blocks.
import { PART_RECORD_BYTES, PLACED_BYTES, TRIANGLE_BYTES, VERTEX_BYTES } from './layout';

const BINS = 16;
const BIN_BYTES = 48; // min, max, count
const LARGEST_LEAF = 7; // blocks
const SHORT_AXIS: f32 = 0.2; // against the longest: along shorter ones it hardly ever pays to split
const MANY = 256;
const STANDS_FOR = 8; // a power of two
const LARGE: f32 = 1.0 / 16.0; // of a side of the range
const SMALL_PART = 8;
const STEP_COST: f32 = 1; // of one node visit against one block test

let nodeTop: usize = 0;
let blockTop: usize = 0;
let recordTop: usize = 0;
let bins: usize = 0;
let vertices: usize = 0;
let triangleList: usize = 0;
let transparentFlags: usize = 0;
let anyPlaced: bool = false; // in the tree being built
let waiting: usize = 0; // where the next part that waits goes; 0 when none are to wait
let partBytes: u32 = 0; // of references: a part's most
let splitCost: f32 = 0;
let splitAxis: i32 = 0;
let splitBin: i32 = 0;
export let nodeCount: i32 = 0;
export let blockCount: i32 = 0;
export let partCount: i32 = 0;

// @ts-ignore: decorator
@inline
function area(lo: v128, hi: v128): f32 {
  const e = f32x4.sub(hi, lo);
  const x = f32x4.extract_lane(e, 0),
    y = f32x4.extract_lane(e, 1),
    z = f32x4.extract_lane(e, 2);
  return x * y + y * z + z * x;
}

// @ts-ignore: decorator
@inline
function blocksOf(triangles: i32): f32 {
  return <f32>((triangles + 3) >> 2);
}

// @ts-ignore: decorator
@inline
function grow(bin: usize, lo: v128, hi: v128, stands: i32): void {
  v128.store(bin, f32x4.pmin(v128.load(bin), lo));
  v128.store(bin, f32x4.pmax(v128.load(bin, 16), hi), 16);
  store<i32>(bin, load<i32>(bin, 32) + stands, 32);
}

/** The bins of one axis. */
// @ts-ignore: decorator
@inline
function empty(first: usize, inf: v128, minusInf: v128): void {
  for (let bin = first; bin < first + BINS * BIN_BYTES; bin += BIN_BYTES) {
    v128.store(bin, inf);
    v128.store(bin, minusInf, 16);
    store<i32>(bin, 0, 32);
  }
}

function findSplit(record: usize): void {
  const begin = load<u32>(record, 64),
    end = load<u32>(record, 68),
    count = <i32>((end - begin) / 32);
  const low = v128.load(record, 32),
    extent = f32x4.sub(v128.load(record, 48), low);
  const scale = v128.bitselect(
    f32x4.div(f32x4.splat(<f32>BINS * <f32>0.99999), extent),
    f32x4.splat(0),
    f32x4.gt(extent, f32x4.splat(<f32>1e-20))
  );
  const inf = f32x4.splat(Infinity),
    minusInf = f32x4.splat(-Infinity);
  const ex = f32x4.extract_lane(extent, 0),
    ey = f32x4.extract_lane(extent, 1),
    ez = f32x4.extract_lane(extent, 2);
  const least = max<f32>(ex, max<f32>(ey, ez)) * SHORT_AXIS;
  const splitsX = ex >= least,
    splitsY = ey >= least,
    splitsZ = ez >= least;
  if (splitsX) empty(bins, inf, minusInf);
  if (splitsY) empty(bins + <usize>(BINS * BIN_BYTES), inf, minusInf);
  if (splitsZ) empty(bins + <usize>(2 * BINS * BIN_BYTES), inf, minusInf);
  // of many references one in so many stands for all, but for those that are large against the range
  const stands = count > MANY ? STANDS_FOR : 1;
  const large = f32x4.replace_lane(
    f32x4.mul(f32x4.sub(v128.load(record, 16), v128.load(record)), f32x4.splat(LARGE)),
    3,
    Infinity
  );
  let turn = 0;
  for (let p: usize = begin; p < end; p += 32) {
    const lo = v128.load(p),
      hi = v128.load(p, 16);
    let weight = stands;
    if (stands > 1 && turn++ & (STANDS_FOR - 1)) {
      if (!v128.any_true(f32x4.gt(f32x4.sub(hi, lo), large))) continue;
      weight = 1;
    }
    const at = i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.sub(f32x4.add(lo, hi), low), scale));
    if (splitsX) grow(bins + <usize>(i32x4.extract_lane(at, 0) * BIN_BYTES), lo, hi, weight);
    if (splitsY) grow(bins + <usize>((i32x4.extract_lane(at, 1) + BINS) * BIN_BYTES), lo, hi, weight);
    if (splitsZ) grow(bins + <usize>((i32x4.extract_lane(at, 2) + 2 * BINS) * BIN_BYTES), lo, hi, weight);
  }
  splitCost = Infinity;
  splitAxis = -1;
  const rightCosts = bins + <usize>(BIN_BYTES * BINS * 3);
  for (let axis = 0; axis < 3; axis++) {
    if (!(axis == 0 ? splitsX : axis == 1 ? splitsY : splitsZ)) continue;
    const first = bins + <usize>(axis * BINS * BIN_BYTES);
    let lo = inf,
      hi = minusInf,
      n = 0;
    for (let i = BINS - 1; i > 0; i--) {
      const bin = first + <usize>(i * BIN_BYTES);
      lo = f32x4.pmin(lo, v128.load(bin));
      hi = f32x4.pmax(hi, v128.load(bin, 16));
      n += load<i32>(bin, 32);
      store<f32>(rightCosts + ((<usize>i) << 2), n ? area(lo, hi) * blocksOf(n) : 0);
    }
    const all = n + load<i32>(first, 32);
    lo = inf;
    hi = minusInf;
    n = 0;
    for (let i = 1; i < BINS; i++) {
      const bin = first + <usize>((i - 1) * BIN_BYTES);
      lo = f32x4.pmin(lo, v128.load(bin));
      hi = f32x4.pmax(hi, v128.load(bin, 16));
      n += load<i32>(bin, 32);
      if (n == 0 || n == all) continue;
      const cost = area(lo, hi) * blocksOf(n) + load<f32>(rightCosts + ((<usize>i) << 2));
      if (cost < splitCost) {
        splitCost = cost;
        splitAxis = axis;
        splitBin = i;
      }
    }
  }
}

/** Parts a record in place by the split found last: left and right receive the two halves. */
function part(record: usize, left: usize, right: usize): void {
  const begin = load<u32>(record, 64),
    end = load<u32>(record, 68);
  const inf = f32x4.splat(Infinity),
    minusInf = f32x4.splat(-Infinity);
  let lMin = inf,
    lMax = minusInf,
    lcMin = inf,
    lcMax = minusInf,
    rMin = inf,
    rMax = minusInf,
    rcMin = inf,
    rcMax = minusInf;
  let i: usize = begin,
    j: usize = end;
  if (splitAxis < 0) {
    // all centroids in one bin: halve by count
    const middle = begin + (((end - begin) / 32) >> 1) * 32;
    for (let p: usize = begin; p < middle; p += 32) {
      const lo = v128.load(p),
        hi = v128.load(p, 16),
        c = f32x4.add(lo, hi);
      lMin = f32x4.pmin(lMin, lo);
      lMax = f32x4.pmax(lMax, hi);
      lcMin = f32x4.pmin(lcMin, c);
      lcMax = f32x4.pmax(lcMax, c);
    }
    for (let p: usize = middle; p < end; p += 32) {
      const lo = v128.load(p),
        hi = v128.load(p, 16),
        c = f32x4.add(lo, hi);
      rMin = f32x4.pmin(rMin, lo);
      rMax = f32x4.pmax(rMax, hi);
      rcMin = f32x4.pmin(rcMin, c);
      rcMax = f32x4.pmax(rcMax, c);
    }
    i = middle;
  } else {
    const lane = (<usize>splitAxis) << 2;
    const low = load<f32>(record + lane, 32),
      scale: f32 = (<f32>BINS * <f32>0.99999) / (load<f32>(record + lane, 48) - low),
      at = splitBin;
    while (true) {
      while (i < j) {
        if (<i32>((load<f32>(i + lane) + load<f32>(i + lane, 16) - low) * scale) >= at) break;
        const lo = v128.load(i),
          hi = v128.load(i, 16),
          c = f32x4.add(lo, hi);
        lMin = f32x4.pmin(lMin, lo);
        lMax = f32x4.pmax(lMax, hi);
        lcMin = f32x4.pmin(lcMin, c);
        lcMax = f32x4.pmax(lcMax, c);
        i += 32;
      }
      while (i < j) {
        const p = j - 32;
        if (<i32>((load<f32>(p + lane) + load<f32>(p + lane, 16) - low) * scale) < at) break;
        const lo = v128.load(p),
          hi = v128.load(p, 16),
          c = f32x4.add(lo, hi);
        rMin = f32x4.pmin(rMin, lo);
        rMax = f32x4.pmax(rMax, hi);
        rcMin = f32x4.pmin(rcMin, c);
        rcMax = f32x4.pmax(rcMax, c);
        j = p;
      }
      if (i >= j) break;
      const p = j - 32,
        a = v128.load(i),
        b = v128.load(i, 16);
      v128.store(i, v128.load(p));
      v128.store(i, v128.load(p, 16), 16);
      v128.store(p, a);
      v128.store(p, b, 16);
    }
  }
  v128.store(left, lMin);
  v128.store(left, lMax, 16);
  v128.store(left, lcMin, 32);
  v128.store(left, lcMax, 48);
  store<u32>(left, begin, 64);
  store<u32>(left, <u32>i, 68);
  store<f32>(left, area(lMin, lMax), 72);
  v128.store(right, rMin);
  v128.store(right, rMax, 16);
  v128.store(right, rcMin, 32);
  v128.store(right, rcMax, 48);
  store<u32>(right, <u32>i, 64);
  store<u32>(right, end, 68);
  store<f32>(right, area(rMin, rMax), 72);
}

function makeLeaf(begin: usize, end: usize): u32 {
  const start = blockTop;
  let blocks = 0;
  for (let p = begin; p < end; p += 128) {
    for (let k: usize = 0; k < 4; k++) {
      const q = blockTop + (k << 2),
        reference = p + k * 32;
      if (reference >= end) {
        for (let z: usize = 0; z < 9; z++) store<f32>(q + (z << 4), 0);
        store<i32>(q, -1, 144);
        continue;
      }
      const id = load<u32>(reference, 12) & 0x3fffffff,
        ip = triangleList + <usize>id * TRIANGLE_BYTES;
      const a = vertices + <usize>load<u32>(ip) * VERTEX_BYTES,
        b = vertices + <usize>load<u32>(ip, 4) * VERTEX_BYTES,
        c = vertices + <usize>load<u32>(ip, 8) * VERTEX_BYTES;
      for (let z: usize = 0; z < 3; z++) {
        store<f32>(q + (z << 4), load<f32>(a + (z << 2)));
        store<f32>(q + (z << 4), load<f32>(b + (z << 2)), 48);
        store<f32>(q + (z << 4), load<f32>(c + (z << 2)), 96);
      }
      store<u32>(q, id | ((<u32>load<u8>(transparentFlags + id)) << 31), 144);
    }
    blockTop += 160;
    blocks++;
    blockCount++;
  }
  return <u32>start | 8 | blocks;
}

const PLACED: u32 = 1 << 29;

/** Whether a range holds something placed; that needs a leaf of its own. */
function holdsPlaced(begin: usize, end: usize): bool {
  if (!anyPlaced) return false;
  for (let p = begin; p < end; p += 32) if (load<u32>(p, 12) & PLACED) return true;
  return false;
}

function setApart(record: usize, slot: usize): void {
  let placed = 0;
  if (anyPlaced)
    for (let p = <usize>load<u32>(record, 64), end = <usize>load<u32>(record, 68); p < end; p += 32)
      placed += <i32>(load<u32>(p, 12) & PLACED) >>> 29;
  memory.copy(waiting, record, 80);
  store<u32>(waiting, placed, 12);
  store<u32>(waiting, <u32>slot, 76);
  waiting += PART_RECORD_BYTES;
  partCount++;
}

function buildNode(record: usize): u32 {
  const begin = load<u32>(record, 64),
    end = load<u32>(record, 68),
    count = <i32>((end - begin) / 32);
  const mixed = count <= LARGEST_LEAF * 4 && holdsPlaced(begin, end);
  if (mixed && count == 1) return <u32>((load<u32>(begin, 12) & (PLACED - 1)) * PLACED_BYTES) | 24;
  if (count <= 4 && !mixed) return makeLeaf(begin, end);
  findSplit(record);
  const size = load<f32>(record, 72);
  if (!mixed && count <= LARGEST_LEAF * 4 && (splitAxis < 0 || size * blocksOf(count) <= splitCost + STEP_COST * size))
    return makeLeaf(begin, end);
  const node = nodeTop;
  nodeTop += 256;
  nodeCount++;
  const records = recordTop,
    spare = recordTop + 640;
  recordTop += 720;
  part(record, records, records + 80);
  let children = 2;
  while (children < 8) {
    // open the largest child that is worth opening
    let best = -1,
      bestArea: f32 = -1;
    for (let i = 0; i < children; i++) {
      const q = records + <usize>(i * 80);
      const from = load<u32>(q, 64),
        to = load<u32>(q, 68);
      if ((to - from > 128 || (to - from > 32 && holdsPlaced(from, to))) && load<f32>(q, 72) > bestArea) {
        bestArea = load<f32>(q, 72);
        best = i;
      }
    }
    if (best < 0) break;
    const q = records + <usize>(best * 80);
    memory.copy(spare, q, 80);
    findSplit(spare);
    part(spare, q, records + <usize>(children * 80));
    children++;
  }
  // smallest area first: the shadow traversal takes the last lane first, and the largest child blocks likeliest
  for (let i = 1; i < children; i++) {
    memory.copy(spare, records + <usize>(i * 80), 80);
    const key = load<f32>(spare, 72);
    let j = i;
    while (j > 0 && load<f32>(records + <usize>((j - 1) * 80), 72) > key) {
      memory.copy(records + <usize>(j * 80), records + <usize>((j - 1) * 80), 80);
      j--;
    }
    memory.copy(records + <usize>(j * 80), spare, 80);
  }
  for (let i = 0; i < 8; i++) {
    const q = records + <usize>(i * 80),
      o = node + ((<usize>i) << 2);
    for (let axis: usize = 0; axis < 3; axis++) {
      store<f32>(o + (axis << 6), i < children ? load<f32>(q + (axis << 2)) : <f32>1e30);
      store<f32>(o + (axis << 6), i < children ? load<f32>(q + (axis << 2), 16) : <f32>1e30, 32);
    }
    if (i >= children) store<u32>(o, 8, 192);
  }
  for (let i = 0; i < children; i++) {
    const q = records + <usize>(i * 80),
      slot = node + ((<usize>i) << 2),
      bytes = load<u32>(q, 68) - load<u32>(q, 64);
    if (waiting && bytes <= partBytes && bytes > partBytes / SMALL_PART) setApart(q, slot);
    else store<u32>(slot, buildNode(q), 192);
  }
  recordTop = records;
  return <u32>node;
}

/**
 * Makes ready for the trees of a scene, which lie one behind another in the same regions: `nodes` and `blocks` for the
 * result (see nodeCount, blockCount for what was used), `room` 2 MiB of scratch. `flags` holds one byte a triangle: 1
 * when it is transparent.
 */
export function beginTrees(
  vertexPtr: usize,
  trianglePtr: usize,
  flags: usize,
  nodes: usize,
  blocks: usize,
  room: usize
): void {
  vertices = vertexPtr;
  triangleList = trianglePtr;
  transparentFlags = flags;
  nodeTop = nodes;
  blockTop = blocks;
  bins = room;
  recordTop = room + 4096;
  nodeCount = 0;
  blockCount = 0;
}

/**
 * Builds a tree over triangles `first` to `first + triangles - 1` and `placed` things whose references are at `boxes`
 * already, and returns its root code. `references`: 32 bytes for each of both.
 */
export function buildTree(first: i32, triangles: i32, boxes: usize, placed: i32, references: usize): u32 {
  anyPlaced = placed > 0;
  let lo = f32x4.splat(Infinity),
    hi = f32x4.splat(-Infinity),
    cLo = lo,
    cHi = hi;
  let p = references,
    triangle = triangleList + <usize>first * TRIANGLE_BYTES;
  for (let i = first; i < first + triangles; i++, p += 32, triangle += TRIANGLE_BYTES) {
    const a = v128.load(vertices + <usize>load<u32>(triangle) * VERTEX_BYTES),
      b = v128.load(vertices + <usize>load<u32>(triangle, 4) * VERTEX_BYTES),
      c = v128.load(vertices + <usize>load<u32>(triangle, 8) * VERTEX_BYTES);
    let low = f32x4.pmin(a, f32x4.pmin(b, c)),
      high = f32x4.pmax(a, f32x4.pmax(b, c));
    low = i32x4.replace_lane(low, 3, i | 0x40000000);
    high = f32x4.replace_lane(high, 3, 1);
    v128.store(p, low);
    v128.store(p, high, 16);
    const c2 = f32x4.add(low, high);
    lo = f32x4.pmin(lo, low);
    hi = f32x4.pmax(hi, high);
    cLo = f32x4.pmin(cLo, c2);
    cHi = f32x4.pmax(cHi, c2);
  }
  for (let i = 0; i < placed; i++, p += 32, boxes += 32) {
    const low = v128.load(boxes),
      high = v128.load(boxes, 16),
      c2 = f32x4.add(low, high);
    v128.store(p, low);
    v128.store(p, high, 16);
    lo = f32x4.pmin(lo, low);
    hi = f32x4.pmax(hi, high);
    cLo = f32x4.pmin(cLo, c2);
    cHi = f32x4.pmax(cHi, c2);
  }
  const record = recordTop;
  recordTop += 80;
  v128.store(record, lo);
  v128.store(record, hi, 16);
  v128.store(record, cLo, 32);
  v128.store(record, cHi, 48);
  store<u32>(record, <u32>references, 64);
  store<u32>(record, <u32>p, 68);
  store<f32>(record, area(lo, hi), 72);
  const root = buildNode(record);
  recordTop = record;
  return root;
}

/**
 * As buildTree, but parts of at most `partTriangles` wait, as records at `parts`, partCount of them; smaller than an
 * eighth of that they do not. Each is then built by buildPart, of whatever instance, and taken in by takePart of this
 * one, in their order, before anything else is built.
 */
export function splitTree(
  first: i32,
  triangles: i32,
  boxes: usize,
  placed: i32,
  references: usize,
  parts: usize,
  partTriangles: i32
): u32 {
  waiting = parts;
  partCount = 0;
  partBytes = <u32>partTriangles * 32;
  const root = buildTree(first, triangles, boxes, placed, references);
  waiting = 0;
  return root;
}

/** `nodes`, `blocks`: where the part is built, with room for its worst case. */
export function buildPart(record: usize, nodes: usize, blocks: usize): void {
  nodeTop = nodes;
  blockTop = blocks;
  nodeCount = 0;
  blockCount = 0;
  anyPlaced = load<u32>(record, 12) > 0;
  const code = buildNode(record);
  store<u32>(record, code);
  store<u32>(record, nodeCount, 4);
  store<u32>(record, blockCount, 8);
}

/** Builds a part where takePart would move it to, which spares the move: when one thread does all. */
export function buildPartHere(record: usize): void {
  anyPlaced = load<u32>(record, 12) > 0;
  store<u32>(<usize>load<u32>(record, 76), buildNode(record), 192);
}

/** Moves what buildPart made behind what this instance has, and enters it in the tree. */
export function takePart(record: usize, nodes: usize, blocks: usize): void {
  const own = load<i32>(record, 4),
    ownBlocks = load<i32>(record, 8);
  const nodesBy = <u32>(nodes - nodeTop),
    blocksBy = <u32>(blocks - blockTop);
  memory.copy(blockTop, blocks, <usize>ownBlocks * 160);
  for (let n = 0; n < own; n++) {
    const from = nodes + <usize>n * 256;
    for (let i: usize = 0; i < 32; i += 4)
      store<u32>(from + i, movedCode(load<u32>(from + i, 192), nodesBy, blocksBy), 192);
  }
  memory.copy(nodeTop, nodes, <usize>own * 256);
  store<u32>(<usize>load<u32>(record, 76), movedCode(load<u32>(record), nodesBy, blocksBy), 192);
  nodeTop += <usize>own * 256;
  blockTop += <usize>ownBlocks * 160;
  nodeCount += own;
  blockCount += ownBlocks;
}

// @ts-ignore: decorator
@inline
function movedCode(code: u32, nodesBy: u32, blocksBy: u32): u32 {
  // an absent child is a leaf without blocks, a placed thing no address
  if (!(code & 8)) return code - nodesBy;
  return code == 8 || code & 16 ? code : code - blocksBy;
}

/** Reference to something placed, in a row of `boxes`: its box in the world. */
export function placeBox(
  at: usize,
  placed: usize,
  minX: f32,
  minY: f32,
  minZ: f32,
  maxX: f32,
  maxY: f32,
  maxZ: f32
): void {
  store<f32>(at, minX);
  store<f32>(at, minY, 4);
  store<f32>(at, minZ, 8);
  store<u32>(at, <u32>(placed / PLACED_BYTES) | PLACED | 0x40000000, 12);
  store<f32>(at, maxX, 16);
  store<f32>(at, maxY, 20);
  store<f32>(at, maxZ, 24);
  store<f32>(at, 1, 28);
}

/**
 * Moves the nodes of all trees down by `by` bytes, so that a pack ends without the slack the worst case would have
 * needed.
 */
export function moveNodes(from: usize, bytes: usize, by: u32): void {
  for (let node = from; node < from + bytes; node += 256) {
    for (let i: usize = 0; i < 32; i += 4) {
      const code = load<u32>(node + i, 192);
      if (!(code & 8)) store<u32>(node + i, code - by, 192);
    }
  }
  memory.copy(from - by, from, bytes);
}
