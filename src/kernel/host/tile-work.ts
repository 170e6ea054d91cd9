/** Samples of a tile as work for a thread: what goes to it, what comes back, and what it does. */
import { CHANNELS } from '../../core/film/film';
import { squaredGrain } from '../../core/quality/grain';
import type { KernelExports } from './kernel';

export interface ThreadStart {
  module: WebAssembly.Module;
  memory: WebAssembly.Memory;
  thread: number;
}

/** Samples first to first + count - 1 of a tile, added to the buffer at `buffer`. */
export interface TileWork {
  buffer: number;
  x: number;
  y: number;
  width: number;
  height: number;
  first: number;
  count: number;
  /** Luminance of displayed white, cd/m2, for the grain. */
  white: number;
}

export interface TileDone {
  rays: number;
  /** Those of the rays that were shadow tests. */
  shadowRays: number;
  /**
   * Luminance of the light that was scattered, summed over samples, and what the firefly limit took of it; 0 without a
   * limit.
   */
  light: { scattered: number; limited: number };
  seconds: number;
  /** Sum over the tile's pixels of the squared grain; 0 while there is but one sample. */
  squaredGrain: number;
}

/** A thread that has a kernel of its own over the shared memory. */
export interface TileThread {
  /** One piece of work at a time. Rejects when the thread dies. */
  work(work: TileWork): Promise<TileDone>;
  end(): Promise<void>;
}

export function doTileWork(kernel: KernelExports, memory: WebAssembly.Memory, work: TileWork): TileDone {
  const began = performance.now();
  kernel.clearLimited();
  kernel.renderTile(work.buffer, work.x, work.y, work.width, work.height, work.first, work.count);
  // measured here, not by the pool: it takes a tenth of a pass of few samples
  const pixels = work.width * work.height;
  const samples = work.first + work.count;
  const grain =
    samples >= 2
      ? squaredGrain(new Float32Array(memory.buffer, work.buffer, pixels * CHANNELS), pixels, samples, work.white)
      : 0;
  const shadowRays = kernel.shadowRays();
  return {
    rays: kernel.takeRayCount(),
    shadowRays,
    light: { scattered: kernel.lightScattered(), limited: kernel.lightLimited() },
    seconds: (performance.now() - began) / 1000,
    squaredGrain: grain
  };
}
