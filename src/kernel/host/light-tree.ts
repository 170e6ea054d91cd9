/**
 * A binary tree over the lamps of a scene, in which the kernel finds those that matter at a place: each node knows
 * where its lamps lie, how strong they are together and into which cone they shine. Split by the surface area
 * orientation heuristic. Source: Conty and Kulla 2018, Importance Sampling of Many Lights with Adaptive Tree Splitting,
 * sections 4.1 to 4.4.
 */
import type { Vec3 } from '../../core/math/vec3';

export interface TreeLight {
  min: Vec3;
  max: Vec3;
  /** Luminous intensity along the axis, cd. */
  strength: number;
  axis: Vec3;
  /** Spread of the normals about the axis, and how far beyond a normal light goes; radians. */
  spread: number;
  beyond: number;
}

/** Nodes in depth-first order: the left child follows its parent. */
export interface TreeNode extends TreeLight {
  parent: number;
  /** Of an inner node; -1 for a leaf. */
  right: number;
  /** Of a leaf; -1 for an inner node. */
  light: number;
}

/** Four children at a time, as the kernel weighs them. */
export interface WideNode {
  children: { bound: TreeLight /** -1 for an inner child */; light: number; node: number }[];
  /** Four times the parent plus the place there; -1 for the root. */
  place: number;
}

const BUCKETS = 12;
// Beyond this depth halves are taken, so that degenerate scenes end.
const DEEPEST_HEURISTIC = 24;

// A set of lamps as numbers in a row, joined in place: with objects and vectors of their own the tree took fifteen
// times as long.
//   minimum xyz, maximum xyz, axis xyz, strength (0: nothing yet), spread, beyond
const BOUND = 12;
const AXIS = 6;
const STRENGTH = 9;
const SPREAD = 10;
const BEYOND = 11;

/** Leaves are numbered from `first` on. Cost: 10 microseconds a lamp. */
export function buildLightTree(lights: readonly TreeLight[], first = 0): TreeNode[] {
  const lit = lights.map((_, i) => i).filter((i) => lights[i]!.strength > 0);
  const bounds = new Float64Array(lights.length * BOUND);
  for (const i of lit) {
    const { min, max, axis, strength, spread, beyond } = lights[i]!;
    bounds.set([...min, ...max, ...axis, strength, spread, beyond], i * BOUND);
  }
  const order = Int32Array.from(lit);
  const spare = new Int32Array(order.length);
  const buckets = new Float64Array(BUCKETS * BOUND);
  const after = new Float64Array(BUCKETS * BOUND);
  const before = new Float64Array(BOUND);
  const whole = new Float64Array(BOUND);
  const nodes: TreeNode[] = [];

  const build = (from: number, to: number, parent: number, depth: number): number => {
    const at = nodes.length;
    whole.fill(0);
    for (let i = from; i < to; i++) join(whole, 0, bounds, order[i]! * BOUND);
    nodes.push(nodeOf(whole, parent, to - from === 1 ? first + order[from]! : -1));
    if (to - from === 1) return at;
    const middle = depth < DEEPEST_HEURISTIC ? split(from, to) : (from + to) >> 1;
    build(from, middle, at, depth + 1);
    nodes[at]!.right = build(middle, to, at, depth + 1);
    return at;
  };

  const doubledMiddle = (light: number, axis: number) =>
    bounds[light * BOUND + axis]! + bounds[light * BOUND + 3 + axis]!;

  /** Reorders the range, whose bound lies in `whole`, and gives where its second half begins. */
  const split = (from: number, to: number): number => {
    let bestCost = Number.POSITIVE_INFINITY;
    let bestAxis = -1;
    let bestBucket = 0;
    let bestLow = 0;
    let bestScale = 0;
    const longest = Math.max(whole[3]! - whole[0]!, whole[4]! - whole[1]!, whole[5]! - whole[2]!, 1e-12);
    for (let axis = 0; axis < 3; axis++) {
      let low = Number.POSITIVE_INFINITY;
      let high = Number.NEGATIVE_INFINITY;
      for (let i = from; i < to; i++) {
        const m = doubledMiddle(order[i]!, axis);
        if (m < low) low = m;
        if (m > high) high = m;
      }
      if (!(high > low)) continue;
      const scaleOf = BUCKETS / (high - low);
      buckets.fill(0);
      for (let i = from; i < to; i++)
        join(buckets, bucketOf(doubledMiddle(order[i]!, axis), low, scaleOf) * BOUND, bounds, order[i]! * BOUND);
      after.fill(0);
      for (let b = BUCKETS - 1; b > 0; b--) {
        if (b + 1 < BUCKETS) join(after, b * BOUND, after, (b + 1) * BOUND);
        join(after, b * BOUND, buckets, b * BOUND);
      }
      before.fill(0);
      // thin nodes are split across their length first
      const regular = longest / Math.max(whole[3 + axis]! - whole[axis]!, 1e-12);
      for (let b = 0; b + 1 < BUCKETS; b++) {
        join(before, 0, buckets, b * BOUND);
        if (before[STRENGTH] === 0 || after[(b + 1) * BOUND + STRENGTH] === 0) continue;
        const cost = regular * (measure(before, 0) + measure(after, (b + 1) * BOUND));
        if (cost < bestCost) [bestCost, bestAxis, bestBucket, bestLow, bestScale] = [cost, axis, b, low, scaleOf];
      }
    }
    if (bestAxis < 0) return (from + to) >> 1;
    let left = from;
    let right = 0;
    for (let i = from; i < to; i++) {
      const light = order[i]!;
      if (bucketOf(doubledMiddle(light, bestAxis), bestLow, bestScale) <= bestBucket) order[left++] = light;
      else spare[right++] = light;
    }
    order.set(spare.subarray(0, right), left);
    return left;
  };

  if (order.length > 0) build(0, order.length, -1, 0);
  return nodes;
}

const bucketOf = (value: number, low: number, scaleOf: number) =>
  Math.min(BUCKETS - 1, Math.floor((value - low) * scaleOf));

/** One root over two trees, which may be empty. */
export function joinLightTrees(left: readonly TreeNode[], right: readonly TreeNode[]): readonly TreeNode[] {
  if (left.length === 0) return right;
  if (right.length === 0) return left;
  const whole = new Float64Array(2 * BOUND);
  for (const [i, { min, max, axis, strength, spread, beyond }] of [left[0]!, right[0]!].entries())
    whole.set([...min, ...max, ...axis, strength, spread, beyond], i * BOUND);
  join(whole, 0, whole, BOUND);
  const moved = (nodes: readonly TreeNode[], by: number) =>
    nodes.map(
      ({ min, max, axis, strength, spread, beyond, parent, right: r, light }): TreeNode => ({
        min,
        max,
        axis,
        strength,
        spread,
        beyond,
        parent: parent < 0 ? 0 : parent + by,
        right: r < 0 ? -1 : r + by,
        light
      })
    );
  const root = { ...nodeOf(whole, -1, -1), right: 1 + left.length };
  return [root, ...moved(left, 1), ...moved(right, 1 + left.length)];
}

/** Takes the binary tree's nodes together, the strongest inner child opened first. */
export function widen(nodes: readonly TreeNode[]): WideNode[] {
  const out: WideNode[] = [];
  const build = (roots: number[], place: number): number => {
    const at = out.length;
    const wide: WideNode = { children: [], place };
    out.push(wide);
    const open = [...roots];
    while (open.length < 4) {
      const inner = open.filter((i) => nodes[i]!.light < 0);
      if (inner.length === 0) break;
      const largest = inner.reduce((a, b) => (nodes[b]!.strength > nodes[a]!.strength ? b : a));
      open.splice(open.indexOf(largest), 1, largest + 1, nodes[largest]!.right);
    }
    wide.children = open.map((i) => ({ bound: nodes[i]!, light: nodes[i]!.light, node: 0 }));
    open.forEach((i, slot) => {
      if (nodes[i]!.light < 0) wide.children[slot]!.node = build([i + 1, nodes[i]!.right], at * 4 + slot);
    });
    return at;
  };
  if (nodes.length > 0) build([0], -1);
  return out;
}

/** Strength times surface times solid angle of the cone, the heuristic's measure of a set of lamps. */
function measure(l: Float64Array, o: number): number {
  const x = l[o + 3]! - l[o]!;
  const y = l[o + 4]! - l[o + 1]!;
  const z = l[o + 5]! - l[o + 2]!;
  const spread = l[o + SPREAD]!;
  const end = Math.min(spread + l[o + BEYOND]!, Math.PI);
  const cone =
    2 * Math.PI * (1 - Math.cos(spread)) +
    (Math.PI / 2) *
      (2 * end * Math.sin(spread) - Math.cos(spread - 2 * end) - 2 * spread * Math.sin(spread) + Math.cos(spread));
  // a row of points has no surface, but a length
  return l[o + STRENGTH]! * cone * (x * y + y * z + z * x + 1e-3 * (x + y + z) ** 2 + 1e-12);
}

function nodeOf(l: Float64Array, parent: number, light: number): TreeNode {
  return {
    min: [l[0]!, l[1]!, l[2]!],
    max: [l[3]!, l[4]!, l[5]!],
    axis: [l[AXIS]!, l[AXIS + 1]!, l[AXIS + 2]!],
    strength: l[STRENGTH]!,
    spread: l[SPREAD]!,
    beyond: l[BEYOND]!,
    parent,
    right: -1,
    light
  };
}

/** Takes the set at `from` into the one at `to`. */
function join(out: Float64Array, to: number, l: Float64Array, from: number): void {
  if (l[from + STRENGTH] === 0) return;
  if (out[to + STRENGTH] === 0) {
    for (let k = 0; k < BOUND; k++) out[to + k] = l[from + k]!;
    return;
  }
  for (let k = 0; k < 3; k++) {
    if (l[from + k]! < out[to + k]!) out[to + k] = l[from + k]!;
    if (l[from + 3 + k]! > out[to + 3 + k]!) out[to + 3 + k] = l[from + 3 + k]!;
  }
  out[to + STRENGTH] = out[to + STRENGTH]! + l[from + STRENGTH]!;
  if (l[from + BEYOND]! > out[to + BEYOND]!) out[to + BEYOND] = l[from + BEYOND]!;
  joinCones(out, to, l, from);
}

/** The smallest cone about both (their algorithm 1). */
function joinCones(out: Float64Array, to: number, l: Float64Array, from: number): void {
  const swap = l[from + SPREAD]! > out[to + SPREAD]!;
  const a = swap ? l : out;
  const b = swap ? out : l;
  const p = (swap ? from : to) + AXIS;
  const q = (swap ? to : from) + AXIS;
  const ax = a[p]!;
  const ay = a[p + 1]!;
  const az = a[p + 2]!;
  const bx = b[q]!;
  const by = b[q + 1]!;
  const bz = b[q + 2]!;
  const spreadA = a[p - AXIS + SPREAD]!;
  const spreadB = b[q - AXIS + SPREAD]!;
  let spread = spreadA;
  let x = ax;
  let y = ay;
  let z = az;
  const between = spreadA >= Math.PI ? 0 : Math.acos(Math.min(1, Math.max(-1, ax * bx + ay * by + az * bz)));
  if (Math.min(between + spreadB, Math.PI) > spreadA) {
    spread = Math.min((spreadA + between + spreadB) / 2, Math.PI);
    // the axis about which a's turns towards b's, and the direction into which it does
    const cx = ay * bz - az * by;
    const cy = az * bx - ax * bz;
    const cz = ax * by - ay * bx;
    const size = Math.hypot(cx, cy, cz);
    if (size < 1e-9) spread = Math.PI;
    else if (spread < Math.PI) {
      const c = Math.cos(spread - spreadA);
      const s = Math.sin(spread - spreadA) / size;
      x = ax * c + (cy * az - cz * ay) * s;
      y = ay * c + (cz * ax - cx * az) * s;
      z = az * c + (cx * ay - cy * ax) * s;
      const k = 1 / Math.hypot(x, y, z);
      x *= k;
      y *= k;
      z *= k;
    }
  }
  out[to + AXIS] = x;
  out[to + AXIS + 1] = y;
  out[to + AXIS + 2] = z;
  out[to + SPREAD] = spread;
}
