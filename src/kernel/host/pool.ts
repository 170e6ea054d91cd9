/**
 * Threads over one shared memory, or each over a copy of it. Each renders a tile at a time into a buffer of its own;
 * results are copied out here, into the array that they went on from: a new one of half a megabyte a pass would sweep
 * the cache of the core that it is made on, which renders too.
 */
import { tileFloats, type TileRect } from '../../core/film/film';
import type { LaidOut } from './settings';
import type { TileDone, TileThread } from './tile-work';

export interface TileResult extends TileDone {
  data: Float32Array;
}

export interface TilePool {
  readonly threads: number;
  readonly layers: number;
  /**
   * Renders samples first to first + count - 1 on top of `before`, which holds the result then. Rejects when the thread
   * dies.
   */
  render(tile: TileRect, first: number, count: number, before: Float32Array | null, white: number): Promise<TileResult>;
}

export class RenderPool implements TilePool {
  private readonly free: number[] = [];
  private readonly waiting: ((thread: number) => void)[] = [];

  constructor(
    private readonly members: readonly TileThread[],
    private readonly laidOut: LaidOut,
    /** Of each thread. */
    private readonly memories: readonly WebAssembly.Memory[] = members.map(() => laidOut.memory)
  ) {
    for (let thread = 0; thread < members.length; thread++) this.free.push(thread);
  }

  get layers(): number {
    return this.laidOut.layers;
  }

  get threads(): number {
    return this.members.length;
  }

  async render(
    tile: TileRect,
    first: number,
    count: number,
    before: Float32Array | null,
    white: number
  ): Promise<TileResult> {
    const thread = this.free.pop() ?? (await new Promise<number>((resolve) => this.waiting.push(resolve)));
    const buffer = this.laidOut.buffers[thread]!;
    const floats = new Float32Array(
      this.memories[thread]!.buffer,
      buffer,
      tileFloats(tile.width * tile.height, this.laidOut.layers)
    );
    if (before) floats.set(before);
    else floats.fill(0);
    try {
      const done = await this.members[thread]!.work({
        buffer,
        x: tile.x,
        y: tile.y,
        width: tile.width,
        height: tile.height,
        first,
        count,
        white
      });
      const data = before ?? new Float32Array(floats.length);
      data.set(floats);
      return { ...done, data };
    } finally {
      const next = this.waiting.shift();
      if (next) next(thread);
      else this.free.push(thread);
    }
  }

  async close(): Promise<void> {
    await Promise.all(this.members.map((member) => member.end()));
  }
}
