/** What goes between the pool and its threads. */
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
  /** Luminance of the light that was scattered, summed over samples, and what the firefly limit took of it; 0 without a limit. */
  light: { scattered: number; limited: number };
  seconds: number;
  /** Sum over the tile's pixels of the squared grain; 0 while there is but one sample. */
  squaredGrain: number;
}
