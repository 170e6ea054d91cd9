/**
 * A binary tree over the lamps of a scene, in which the kernel finds those that matter at a place: each node knows where its
 * lamps lie, how strong they are together and into which cone they shine. Split by the surface area orientation heuristic.
 * Source: Conty and Kulla 2018, Importance Sampling of Many Lights with Adaptive Tree Splitting, sections 4.1 to 4.4.
 */
import { add, cross, dot, length, normalize, scale, type Vec3 } from '../../core/math/vec3';

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
  children: { bound: TreeLight; /** -1 for an inner child */ light: number; node: number }[];
  /** Four times the parent plus the place there; -1 for the root. */
  place: number;
}

const BUCKETS = 12;
// Beyond this depth halves are taken, so that degenerate scenes end.
const DEEPEST_HEURISTIC = 24;

export function buildLightTree(lights: readonly TreeLight[]): TreeNode[] {
  const nodes: TreeNode[] = [];
  const middles = lights.map((l) => scale(add(l.min, l.max), 0.5));
  const order = lights.map((_, i) => i).filter((i) => lights[i]!.strength > 0);
  const build = (from: number, to: number, parent: number, depth: number): number => {
    const at = nodes.length;
    const whole = order.slice(from, to).map((i) => lights[i]!).reduce(join);
    nodes.push({ ...whole, parent, right: -1, light: to - from === 1 ? order[from]! : -1 });
    if (to - from === 1) return at;
    const middle = depth < DEEPEST_HEURISTIC ? split(from, to, whole) : (from + to) >> 1;
    build(from, middle, at, depth + 1);
    nodes[at]!.right = build(middle, to, at, depth + 1);
    return at;
  };

  /** Reorders the range and gives where its second half begins. */
  const split = (from: number, to: number, whole: TreeLight): number => {
    let best = { cost: Number.POSITIVE_INFINITY, axis: -1, bucket: 0, low: 0, width: 1 };
    const longest = Math.max(...whole.max.map((v, k) => v - whole.min[k]!), 1e-12);
    for (let axis = 0; axis < 3; axis++) {
      let low = Number.POSITIVE_INFINITY;
      let high = Number.NEGATIVE_INFINITY;
      for (let i = from; i < to; i++) {
        low = Math.min(low, middles[order[i]!]![axis]!);
        high = Math.max(high, middles[order[i]!]![axis]!);
      }
      const width = high - low;
      if (!(width > 0)) continue;
      const buckets: (TreeLight | null)[] = Array.from({ length: BUCKETS }, () => null);
      for (let i = from; i < to; i++) {
        const b = Math.min(BUCKETS - 1, Math.floor(((middles[order[i]!]![axis]! - low) / width) * BUCKETS));
        const light = lights[order[i]!]!;
        buckets[b] = buckets[b] ? join(buckets[b]!, light) : light;
      }
      const after: (TreeLight | null)[] = [];
      let sum: TreeLight | null = null;
      for (let b = BUCKETS - 1; b > 0; b--) {
        if (buckets[b]) sum = sum ? join(sum, buckets[b]!) : buckets[b]!;
        after[b] = sum;
      }
      let before: TreeLight | null = null;
      // thin nodes are split across their length first
      const regular = longest / Math.max(whole.max[axis]! - whole.min[axis]!, 1e-12);
      for (let b = 0; b + 1 < BUCKETS; b++) {
        if (buckets[b]) before = before ? join(before, buckets[b]!) : buckets[b]!;
        const rest = after[b + 1];
        if (!before || !rest) continue;
        const cost = regular * (measure(before) + measure(rest));
        if (cost < best.cost) best = { cost, axis, bucket: b, low, width };
      }
    }
    if (best.axis < 0) return (from + to) >> 1;
    const range = order.slice(from, to);
    const left = range.filter((i) => Math.min(BUCKETS - 1, Math.floor(((middles[i]![best.axis]! - best.low) / best.width) * BUCKETS)) <= best.bucket);
    const kept = new Set(left);
    order.splice(from, to - from, ...left, ...range.filter((i) => !kept.has(i)));
    return from + left.length;
  };

  if (order.length > 0) build(0, order.length, -1, 0);
  return nodes;
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
function measure(l: TreeLight): number {
  const [x, y, z] = l.max.map((v, k) => v - l.min[k]!) as [number, number, number];
  const end = Math.min(l.spread + l.beyond, Math.PI);
  const cone = 2 * Math.PI * (1 - Math.cos(l.spread)) + (Math.PI / 2) * (2 * end * Math.sin(l.spread) - Math.cos(l.spread - 2 * end) - 2 * l.spread * Math.sin(l.spread) + Math.cos(l.spread));
  // a row of points has no surface, but a length
  return l.strength * cone * (x * y + y * z + z * x + 1e-3 * (x + y + z) ** 2 + 1e-12);
}

function join(a: TreeLight, b: TreeLight): TreeLight {
  const { axis, spread } = joinCones(a, b);
  return {
    min: a.min.map((v, k) => Math.min(v, b.min[k]!)) as unknown as Vec3,
    max: a.max.map((v, k) => Math.max(v, b.max[k]!)) as unknown as Vec3,
    strength: a.strength + b.strength,
    axis,
    spread,
    beyond: Math.max(a.beyond, b.beyond)
  };
}

/** The smallest cone about both (their algorithm 1). */
function joinCones(one: TreeLight, other: TreeLight): { axis: Vec3; spread: number } {
  const [a, b] = one.spread >= other.spread ? [one, other] : [other, one];
  const between = Math.acos(Math.min(1, Math.max(-1, dot(a.axis, b.axis))));
  if (Math.min(between + b.spread, Math.PI) <= a.spread) return { axis: a.axis, spread: a.spread };
  const spread = (a.spread + between + b.spread) / 2;
  if (spread >= Math.PI) return { axis: a.axis, spread: Math.PI };
  const about = cross(a.axis, b.axis);
  if (length(about) < 1e-9) return { axis: a.axis, spread: Math.PI };
  // turns a's axis towards b's
  const turn = spread - a.spread;
  const side = cross(normalize(about), a.axis);
  return { axis: normalize(add(scale(a.axis, Math.cos(turn)), scale(side, Math.sin(turn)))), spread };
}
