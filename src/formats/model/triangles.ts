/** The triangles of a primitive looked at as a body: which have no area, lie on another, look inwards, or are open. */
import type { Document, Primitive } from '@gltf-transform/core';

// Of the square of a mesh's extent: what is thinner than single precision can tell has no area.
const FLAT = 1e-12;

export interface ExaminedTriangles {
  count: number;
  /** Numbers of the triangles that have no area, and of those that lie on one before them. */
  flat: number[];
  doubled: number[];
  /** Edges that one of the sound triangles alone has: its corners, as the triangle goes round. */
  open: [from: number, to: number][];
  /** A closed body whose faces look inwards. */
  insideOut: boolean;
  /** Share of the sound triangles whose normals look away from them; 0 where there are none. */
  turnedNormals: number;
}

/** `wantsEdges`: whether open edges are looked for, which takes longest. Null where there is nothing to look at. */
export function examineTriangles(primitive: Primitive, wantsEdges: boolean): ExaminedTriangles | null {
  const position = primitive.getAttribute('POSITION');
  const positions = position?.getArray();
  if (!position || !positions || position.getElementSize() !== 3) return null;
  const indices = primitive.getIndices()?.getArray() ?? null;
  const count = Math.floor((indices?.length ?? position.getCount()) / 3);
  const places = placesOf(positions, position.getCount());
  const corner = (i: number) => places[indices ? indices[i]! : i]!;
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const value of positions) {
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  const least = FLAT * (high - low) ** 2;
  const seen = new CornerSet(count);
  const normals = primitive.getAttribute('NORMAL')?.getArray() ?? null;
  const edges = new EdgeUses();
  const [flat, doubled]: [number[], number[]] = [[], []];
  let [sound, turned, volume] = [0, 0, 0];
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [corner(t * 3), corner(t * 3 + 1), corner(t * 3 + 2)];
    if (a === b || b === c || c === a || areaOf(positions, a, b, c) <= least) {
      flat.push(t);
      continue;
    }
    if (!seen.add(a, b, c)) {
      doubled.push(t);
      continue;
    }
    sound++;
    volume += signedVolume(positions, a, b, c);
    if (normals && looksAway(positions, normals, [a, b, c], (k) => (indices ? indices[t * 3 + k]! : t * 3 + k)))
      turned++;
    if (wantsEdges)
      for (const [p, q] of [
        [a, b],
        [b, c],
        [c, a]
      ] as const)
        edges.add(p, q);
  }
  const open = edges.open();
  return {
    count,
    flat,
    doubled,
    open,
    insideOut: wantsEdges && sound > 3 && open.length === 0 && edges.consistent && volume < 0,
    turnedNormals: sound > 0 ? turned / sound : 0
  };
}

/** Six times the volume between a triangle and the origin. */
function signedVolume(p: ArrayLike<number>, a: number, b: number, c: number): number {
  const at = (v: number, k: number) => p[v * 3 + k]!;
  return (
    at(a, 0) * (at(b, 1) * at(c, 2) - at(b, 2) * at(c, 1)) +
    at(a, 1) * (at(b, 2) * at(c, 0) - at(b, 0) * at(c, 2)) +
    at(a, 2) * (at(b, 0) * at(c, 1) - at(b, 1) * at(c, 0))
  );
}

/** Whether the mean of a triangle's normals looks to its back. */
function looksAway(
  p: ArrayLike<number>,
  normals: ArrayLike<number>,
  [a, b, c]: readonly [number, number, number],
  vertex: (k: number) => number
): boolean {
  const [ux, uy, uz] = [0, 1, 2].map((k) => p[b * 3 + k]! - p[a * 3 + k]!) as [number, number, number];
  const [vx, vy, vz] = [0, 1, 2].map((k) => p[c * 3 + k]! - p[a * 3 + k]!) as [number, number, number];
  const face = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  let sum = 0;
  for (let corner = 0; corner < 3; corner++)
    for (let k = 0; k < 3; k++) sum += face[k]! * normals[vertex(corner) * 3 + k]!;
  return !(sum >= 0);
}

/** How often each edge is used, and whether twice in opposite directions. */
class EdgeUses {
  private readonly uses = new Map<number, number>();
  /** Every edge that two triangles share is used once in each direction. */
  consistent = true;

  /** Corners are numbers below 2^26, so that a pair of them is one exact number. */
  add(from: number, to: number): void {
    const key = Math.min(from, to) * 2 ** 26 + Math.max(from, to);
    const sign = from < to ? 1 : -1;
    const known = this.uses.get(key);
    if (known === undefined) this.uses.set(key, sign);
    else if (known === -sign) this.uses.set(key, 0);
    else {
      this.consistent = false;
      this.uses.set(key, 0);
    }
  }

  open(): [number, number][] {
    const out: [number, number][] = [];
    for (const [key, sign] of this.uses) {
      if (sign === 0) continue;
      const [low, high] = [Math.floor(key / 2 ** 26), key % 2 ** 26];
      out.push(sign > 0 ? [low, high] : [high, low]);
    }
    return out;
  }
}

/** Triples of corners, in whatever order; open addressing, because a million of them as text take half a minute. */
class CornerSet {
  private readonly mask: number;
  private readonly slots: Int32Array;
  private readonly triples: Int32Array;
  private size = 0;

  constructor(most: number) {
    const size = 2 ** Math.ceil(Math.log2(Math.max(2, most * 2)));
    this.mask = size - 1;
    this.slots = new Int32Array(size).fill(-1);
    this.triples = new Int32Array(most * 3);
  }

  /** False when it is there already. */
  add(a: number, b: number, c: number): boolean {
    const [low, high] = [Math.min(a, b, c), Math.max(a, b, c)];
    const middle = a + b + c - low - high;
    const { slots, triples, mask } = this;
    let hash = Math.imul(low, 73_856_093) ^ Math.imul(middle, 19_349_663) ^ Math.imul(high, 83_492_791);
    hash ^= hash >>> 15;
    for (let slot = hash & mask; ; slot = (slot + 1) & mask) {
      const at = slots[slot]! * 3;
      if (at < 0) {
        slots[slot] = this.size;
        triples.set([low, middle, high], this.size++ * 3);
        return true;
      }
      if (triples[at] === low && triples[at + 1] === middle && triples[at + 2] === high) return false;
    }
  }
}

/** Of each vertex the first one at its very place. */
function placesOf(positions: ArrayLike<number>, vertices: number): Int32Array {
  const size = 2 ** Math.ceil(Math.log2(Math.max(2, vertices * 2)));
  const table = new Int32Array(size).fill(-1);
  const out = new Int32Array(vertices);
  const bits = new Float32Array(3);
  const words = new Int32Array(bits.buffer);
  for (let v = 0; v < vertices; v++) {
    // one kind of zero
    for (let k = 0; k < 3; k++) bits[k] = positions[v * 3 + k]! + 0;
    let slot =
      (Math.imul(words[0]!, 73_856_093) ^ Math.imul(words[1]!, 19_349_663) ^ Math.imul(words[2]!, 83_492_791)) >>> 0;
    for (slot = (slot ^ (slot >>> 15)) & (size - 1); ; slot = (slot + 1) & (size - 1)) {
      const other = table[slot]!;
      if (other < 0) {
        table[slot] = v;
        out[v] = v;
        break;
      }
      if (
        positions[other * 3] === positions[v * 3] &&
        positions[other * 3 + 1] === positions[v * 3 + 1] &&
        positions[other * 3 + 2] === positions[v * 3 + 2]
      ) {
        out[v] = other;
        break;
      }
    }
  }
  return out;
}

/** Twice the area. */
function areaOf(p: ArrayLike<number>, a: number, b: number, c: number): number {
  const [ux, uy, uz] = [0, 1, 2].map((k) => p[b * 3 + k]! - p[a * 3 + k]!) as [number, number, number];
  const [vx, vy, vz] = [0, 1, 2].map((k) => p[c * 3 + k]! - p[a * 3 + k]!) as [number, number, number];
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
}

/** Takes triangles out by their numbers. False when nothing is left: the primitive is disposed of. */
export function dropTriangles(document: Document, primitive: Primitive, gone: readonly number[]): boolean {
  if (gone.length === 0) return true;
  const out = new Set(gone);
  const all = Math.floor((primitive.getIndices()?.getCount() ?? primitive.getAttribute('POSITION')!.getCount()) / 3);
  const kept = Array.from({ length: all }, (_, t) => t).filter((t) => !out.has(t));
  const indices = primitive.getIndices()?.getArray() ?? null;
  const left = new Uint32Array(kept.length * 3);
  for (let i = 0; i < left.length; i++) {
    const at = kept[Math.floor(i / 3)]! * 3 + (i % 3);
    left[i] = indices ? indices[at]! : at;
  }
  if (left.length === 0) {
    primitive.dispose();
    return false;
  }
  const buffer = primitive.getAttribute('POSITION')!.getBuffer();
  primitive.setIndices(document.createAccessor().setType('SCALAR').setArray(left).setBuffer(buffer));
  return true;
}
