/** Threads over one shared memory. Each renders a tile at a time into a buffer of its own; results are copied out here. */
import { Worker } from 'node:worker_threads';
import { tileFloats, type TileRect } from '../../core/film/film';
import type { LaidOut } from '../../kernel/host/settings';
import { config } from '../config';
import type { ThreadStart, TileDone, TileWork } from './messages';

export interface TileResult extends TileDone {
  data: Float32Array;
}

export class RenderPool {
  private readonly free: number[] = [];
  private readonly waiting: ((thread: number) => void)[] = [];
  private readonly workers: Worker[];

  constructor(
    module: WebAssembly.Module,
    private readonly laidOut: LaidOut
  ) {
    this.workers = laidOut.buffers.map((_, thread) => {
      const start: ThreadStart = { module, memory: laidOut.memory, thread };
      this.free.push(thread);
      return new Worker(config.built('render-thread.mjs'), { workerData: start });
    });
  }

  get layers(): number {
    return this.laidOut.layers;
  }

  get threads(): number {
    return this.workers.length;
  }

  /** Renders samples first to first + count - 1 on top of `before`. Rejects when the thread dies. */
  async render(tile: TileRect, first: number, count: number, before: Float32Array | null, white: number): Promise<TileResult> {
    const thread = this.free.pop() ?? (await new Promise<number>((resolve) => this.waiting.push(resolve)));
    const buffer = this.laidOut.buffers[thread]!;
    const floats = new Float32Array(this.laidOut.memory.buffer, buffer, tileFloats(tile.width * tile.height, this.laidOut.layers));
    if (before) floats.set(before);
    else floats.fill(0);
    const worker = this.workers[thread]!;
    try {
      const done = await new Promise<TileDone>((resolve, reject) => {
        const settle = (action: () => void) => {
          worker.off('message', onMessage);
          worker.off('error', onError);
          worker.off('exit', onExit);
          action();
        };
        const onMessage = (message: TileDone) => settle(() => resolve(message));
        const onError = (error: Error) => settle(() => reject(error));
        const onExit = (code: number) => settle(() => reject(new Error(`render thread ${thread} ended with code ${code}`)));
        worker.on('message', onMessage);
        worker.on('error', onError);
        worker.on('exit', onExit);
        const work: TileWork = { buffer, x: tile.x, y: tile.y, width: tile.width, height: tile.height, first, count, white };
        worker.postMessage(work);
      });
      return { ...done, data: Float32Array.from(floats) };
    } finally {
      const next = this.waiting.shift();
      if (next) next(thread);
      else this.free.push(thread);
    }
  }

  async close(): Promise<void> {
    await Promise.all(this.workers.map((worker) => worker.terminate()));
  }
}
