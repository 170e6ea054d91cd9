/**
 * What is wrong with the triangles of a model, put right or told: those without an area and those that lie on another of
 * the same material are taken out (two surfaces in one place render as dark patches); glass bodies with open edges are told,
 * because light does not find its way out of them.
 */
import type { Document, Primitive } from '@gltf-transform/core';
import type { Volume } from '@gltf-transform/extensions';

// Of the square of a mesh's extent: what is thinner than single precision can tell has no area.
const FLAT = 1e-12;
const NAMES_TOLD = 3;

export function repairTriangles(document: Document, changed: string[], missing: string[]): void {
  let [flat, doubled] = [0, 0];
  const open = new Map<string, number>();
  for (const mesh of document.getRoot().listMeshes())
    for (const primitive of mesh.listPrimitives()) {
      const found = examinePrimitive(primitive);
      if (!found) continue;
      flat += found.flat;
      doubled += found.doubled;
      if (found.kept.length < found.count) keepTriangles(document, primitive, found.kept);
      const material = primitive.getMaterial();
      const volume = material?.getExtension<Volume>('KHR_materials_volume');
      if (volume && volume.getThicknessFactor() > 0 && found.openEdges > 0)
        open.set(material!.getName() || 'without a name', found.openEdges);
    }
  const triangles = (n: number) => `${n.toLocaleString('en')} triangle${n === 1 ? '' : 's'}`;
  if (flat > 0) changed.push(`${triangles(flat)} without an area ${flat === 1 ? 'was' : 'were'} taken out`);
  if (doubled > 0)
    changed.push(
      `${triangles(doubled)} that lay on another of the same material ${doubled === 1 ? 'was' : 'were'} taken out`
    );
  for (const [name, edges] of [...open].slice(0, NAMES_TOLD))
    missing.push(
      `The glass "${name}" is no closed body: ${edges.toLocaleString('en')} of its edges are open, so it refracts wrongly; close it`
    );
}

interface Found {
  count: number;
  flat: number;
  doubled: number;
  /** Numbers of the triangles that stay. */
  kept: Uint32Array;
  /** Edges that one triangle alone has. */
  openEdges: number;
}

function examinePrimitive(primitive: Primitive): Found | null {
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
  const edges = new Map<number, number>();
  const kept: number[] = [];
  let [flat, doubled] = [0, 0];
  const glass = (primitive.getMaterial()?.getExtension<Volume>('KHR_materials_volume')?.getThicknessFactor() ?? 0) > 0;
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [corner(t * 3), corner(t * 3 + 1), corner(t * 3 + 2)];
    if (a === b || b === c || c === a || areaOf(positions, a, b, c) <= least) {
      flat++;
      continue;
    }
    if (!seen.add(a, b, c)) {
      doubled++;
      continue;
    }
    kept.push(t);
    if (glass)
      for (const [p, q] of [
        [a, b],
        [b, c],
        [c, a]
      ] as const) {
        const edge = Math.min(p, q) * position.getCount() + Math.max(p, q);
        edges.set(edge, (edges.get(edge) ?? 0) + 1);
      }
  }
  let openEdges = 0;
  for (const uses of edges.values()) if (uses === 1) openEdges++;
  return { count, flat, doubled, kept: Uint32Array.from(kept), openEdges };
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

function keepTriangles(document: Document, primitive: Primitive, kept: Uint32Array): void {
  const indices = primitive.getIndices()?.getArray() ?? null;
  const out = new Uint32Array(kept.length * 3);
  for (let i = 0; i < out.length; i++) {
    const at = kept[Math.floor(i / 3)]! * 3 + (i % 3);
    out[i] = indices ? indices[at]! : at;
  }
  if (out.length === 0) {
    primitive.dispose();
    return;
  }
  const buffer = primitive.getAttribute('POSITION')!.getBuffer();
  primitive.setIndices(document.createAccessor().setType('SCALAR').setArray(out).setBuffer(buffer));
}
