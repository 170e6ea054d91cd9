/**
 * Large trees in parts (assembly/build.ts): one thread splits until some sixty parts or more are left, threads take
 * them one after the other, each building into a region of its own, and one thread moves them together in their order.
 * What comes out does not hang on how many threads there were. Cost beside the building: one copy of nodes and blocks.
 */
import * as L from '../assembly/layout';
import { instantiate, type KernelExports } from './kernel';
import type { Views } from './views';

/** Smaller trees are built at once: a thread takes longer to start. */
export const LARGE_TREE = 50_000;
/** Scratch of a builder. */
export const ROOM_BYTES = 1 << 21;
// So many parts at least; the smallest are an eighth as large, so eight times as many at most, and a few.
const PARTS = 64;
const MAX_PARTS = PARTS * 10;
/** Of nodes: the split's own, and what rounding costs each part. */
export const PART_SLACK_BYTES = MAX_PARTS * 1024;

/** Threads that help, beside the one that asks. */
export interface Helpers {
  threads: number;
  /** Begins `buildParts(job, thread)` on a thread of its own; the asker does not wait for it to start. */
  start(job: PartsJob, thread: number): void;
}
export const ALONE: Helpers = { threads: 0, start() {} };

/** What a thread needs to build parts. Addresses in the memory. */
export interface PartsJob {
  module: WebAssembly.Module;
  memory: WebAssembly.Memory;
  vertices: number;
  triangles: number;
  flags: number;
  parts: PartRegions;
  count: number;
  /** Where this tree's counters lie. */
  counter: number;
}

export interface PartRegions {
  records: number;
  /** Of each part two u32: where its nodes and its blocks are built. */
  places: number;
  /**
   * Of each large tree COUNTERS_BYTES: the next part to take, and how many are built. Their own, because a thread that
   * starts late may still hold the job before.
   */
  counters: number;
  /** ROOM_BYTES a thread. */
  rooms: number;
}

export interface PartBuilder {
  module: WebAssembly.Module;
  memory: WebAssembly.Memory;
  help: Helpers;
}

const COUNTERS_BYTES = 8;

/** `trees`: how many are built in parts. */
export function takeParts(take: (bytes: number) => number, helpers: number, trees: number): PartRegions {
  return {
    records: take(MAX_PARTS * L.PART_RECORD_BYTES),
    places: take(MAX_PARTS * 8),
    counters: take(trees * COUNTERS_BYTES),
    rooms: take((helpers + 1) * ROOM_BYTES)
  };
}

interface TreeOf {
  /** Which of the large ones it is. */
  index: number;
  first: number;
  triangles: number;
  boxes: number;
  placed: number;
}

/** The root code of the tree. */
export function buildInParts(
  kernel: KernelExports,
  { u32, i32 }: Views,
  at: {
    vertices: number;
    triangles: number;
    flags: number;
    nodes: number;
    blocks: number;
    references: number;
    parts: PartRegions | null;
  },
  tree: TreeOf,
  { module, memory, help }: PartBuilder
): number {
  const parts = at.parts!;
  const root = kernel.splitTree(
    tree.first,
    tree.triangles,
    tree.boxes,
    tree.placed,
    at.references,
    parts.records,
    Math.ceil((tree.triangles + tree.placed) / PARTS)
  );
  const count = kernel.partCount.value as number;
  if (count > MAX_PARTS) throw new Error(`buildInParts: expected at most ${MAX_PARTS} parts, got ${count}`);
  const record = (i: number) => parts.records + i * L.PART_RECORD_BYTES;
  if (help.threads === 0) {
    for (let i = 0; i < count; i++) kernel.buildPartHere(record(i));
    return root;
  }
  // behind what the split itself made, each with room for its worst case
  let nodes = at.nodes + (kernel.nodeCount.value as number) * 256;
  let blocks = at.blocks + (kernel.blockCount.value as number) * 160;
  for (let i = 0; i < count; i++) {
    const references = (u32[(record(i) + L.PART_END) >> 2]! - u32[(record(i) + L.PART_BEGIN) >> 2]!) / 32;
    const placed = u32[(record(i) + L.PART_PLACED) >> 2]!;
    u32.set([nodes, blocks], (parts.places >> 2) + i * 2);
    nodes += (references + placed) * 128 + 512;
    blocks += (references - placed) * 160;
  }
  const counter = parts.counters + tree.index * COUNTERS_BYTES;
  const job: PartsJob = {
    module,
    memory,
    vertices: at.vertices,
    triangles: at.triangles,
    flags: at.flags,
    parts,
    count,
    counter
  };
  i32.set([0, 0], counter >> 2);
  for (let thread = 1; thread <= help.threads; thread++) help.start(job, thread);
  buildParts(job, 0);
  waitFor(i32, (counter >> 2) + 1, count);
  for (let i = 0; i < count; i++)
    kernel.takePart(record(i), u32[(parts.places >> 2) + i * 2]!, u32[(parts.places >> 2) + i * 2 + 1]!);
  return root;
}

/** Takes parts until none is left. `thread`: 0 for the asker, others count from 1. */
export function buildParts(
  { module, memory, vertices, triangles, flags, parts, count, counter }: PartsJob,
  thread: number
): void {
  const i32 = new Int32Array(memory.buffer);
  const kernel = instantiate(module, memory, thread);
  kernel.beginTrees(vertices, triangles, flags, 0, 0, parts.rooms + thread * ROOM_BYTES);
  const next = counter >> 2;
  for (let i = Atomics.add(i32, next, 1); i < count; i = Atomics.add(i32, next, 1)) {
    const place = (parts.places >> 2) + i * 2;
    kernel.buildPart(parts.records + i * L.PART_RECORD_BYTES, i32[place]! >>> 0, i32[place + 1]! >>> 0);
    Atomics.add(i32, next + 1, 1);
    Atomics.notify(i32, next + 1);
  }
}

// A part takes a fraction of a second; a thread that says nothing so long has died.
const LONGEST_MS = 60_000;

function waitFor(i32: Int32Array, at: number, count: number): void {
  for (let built = Atomics.load(i32, at); built < count; built = Atomics.load(i32, at)) {
    if (Atomics.wait(i32, at, built, LONGEST_MS) === 'timed-out')
      throw new Error(`buildInParts: ${built} of ${count} parts of a tree were built, then a thread stopped`);
  }
}
