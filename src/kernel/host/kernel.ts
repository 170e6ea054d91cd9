/** The kernel as the host sees it: its exports, an instance over a memory, and a thread's context. */
import { MAX_THREADS, PACK, PACK_HEADER_BYTES } from '../assembly/layout';

export interface KernelExports {
  setThread(thread: number): void;
  shadowRays(): number;
  takeRayCount(): number;
  lightScattered(): number;
  lightLimited(): number;
  clearLimited(): void;
  beginTrees(vertices: number, indices: number, flags: number, nodes: number, blocks: number, room: number): void;
  buildTree(first: number, triangles: number, boxes: number, placed: number, references: number): number;
  splitTree(
    first: number,
    triangles: number,
    boxes: number,
    placed: number,
    references: number,
    parts: number,
    partTriangles: number
  ): number;
  buildPart(record: number, nodes: number, blocks: number): void;
  buildPartHere(record: number): void;
  takePart(record: number, nodes: number, blocks: number): void;
  placeBox(
    at: number,
    placed: number,
    minX: number,
    minY: number,
    minZ: number,
    maxX: number,
    maxY: number,
    maxZ: number
  ): void;
  moveNodes(from: number, bytes: number, by: number): void;
  nodeCount: WebAssembly.Global;
  blockCount: WebAssembly.Global;
  partCount: WebAssembly.Global;
  renderTile(buffer: number, x: number, y: number, width: number, height: number, first: number, count: number): void;
  divideLight(
    light: number,
    guides: number,
    plane: number,
    from: number,
    to: number,
    blind: boolean,
    least: number,
    reflectanceScale: number,
    normalScale: number
  ): void;
  despeckleRows(
    light: number,
    luminances: number,
    width: number,
    height: number,
    from: number,
    to: number,
    times: number
  ): void;
  meanRows(values: number, out: number, width: number, from: number, to: number, squared: boolean): void;
  errorRows(
    errors: number,
    means: number,
    squares: number,
    width: number,
    height: number,
    from: number,
    to: number
  ): void;
  blurRows(guides: number, out: number, width: number, height: number, from: number, to: number, along: number): void;
  multiplyLight(light: number, guides: number, from: number, to: number, reflectanceScale: number): void;
  compareBy(known: number, guides: number, pixels: number): void;
  smoothRows(
    light: number,
    known: number,
    guides: number,
    out: number,
    width: number,
    height: number,
    from: number,
    to: number,
    step: number,
    radius: number,
    errors: number,
    lone: number,
    ease: number
  ): void;
  intersectMany(rays: number, count: number, out: number): void;
  occludedMany(rays: number, count: number, out: number): void;
  probeSurface(values: number, glassAlbedo: number, x: number, y: number, z: number): void;
  probeEvaluate(x: number, y: number, z: number, out: number): void;
  probeSample(choice: number, u: number, v: number, out: number): number;
  probeSolid(
    solid: number,
    x: number,
    y: number,
    z: number,
    width: number,
    nx: number,
    ny: number,
    nz: number,
    out: number
  ): void;
  probePoints(x: number, y: number, pair: number, count: number, seed: number, out: number): void;
  probeFour(x: number, y: number, first: number, sample: number, seed: number, out: number): void;
  probeMath(x: number, y: number, out: number): void;
}

/** Where a scene pack lies in the kernel's memory. */
export const PACK_AT = PACK;

const PAGE = 65_536;
/** What 32-bit WebAssembly can address. */
export const MAX_BYTES = 65_536 * PAGE;

export function createMemory(bytes: number): WebAssembly.Memory {
  const pages = Math.ceil(bytes / PAGE);
  if (pages > 65_536)
    throw new RangeError(`createMemory: expected at most 4 GiB, got ${(bytes / 2 ** 30).toFixed(1)} GiB`);
  return new WebAssembly.Memory({ initial: pages, maximum: pages, shared: true });
}

export function instantiate(module: WebAssembly.Module, memory: WebAssembly.Memory, thread: number): KernelExports {
  if (thread >= MAX_THREADS) throw new RangeError(`instantiate: expected a thread below ${MAX_THREADS}, got ${thread}`);
  const instance = new WebAssembly.Instance(module, {
    env: {
      memory,
      abort() {
        throw new Error('kernel: abort');
      }
    }
  });
  const kernel = instance.exports as unknown as KernelExports;
  kernel.setThread(thread);
  return kernel;
}

/** Where the rig of a pack lies. */
export const rigAddress = (packBytes: number): number => (PACK + packBytes + 255) & ~255;

/** Where free memory begins behind pack and rig. */
export const behindScene = (packBytes: number, rigBytes: number): number =>
  (rigAddress(packBytes) + rigBytes + 255) & ~255;

/** Lays a rig behind the pack that is there, and its header before it. */
export function placeRig(memory: WebAssembly.Memory, packBytes: number, rig: Uint8Array): void {
  const bytes = new Uint8Array(memory.buffer);
  bytes.set(rig, rigAddress(packBytes));
  bytes.set(rig.subarray(0, PACK_HEADER_BYTES), PACK);
}

export function placeScene(memory: WebAssembly.Memory, { pack, rig }: { pack: Uint8Array; rig: Uint8Array }): void {
  new Uint8Array(memory.buffer).set(pack, PACK);
  placeRig(memory, pack.byteLength, rig);
}

/**
 * A scene in a memory of its own, with `room` bytes behind it from `at` on: for looking into it without rendering it.
 */
export function openScene(
  scene: { pack: Uint8Array; rig: Uint8Array },
  module: WebAssembly.Module,
  room: number
): { kernel: KernelExports; memory: WebAssembly.Memory; at: number } {
  const at = behindScene(scene.pack.byteLength, scene.rig.byteLength);
  const memory = createMemory(at + room + PAGE);
  placeScene(memory, scene);
  return { kernel: instantiate(module, memory, 0), memory, at };
}
