/** Render threads of Node. */
import { Worker } from 'node:worker_threads';
import { createMemory } from '../../kernel/host/kernel';
import { RenderPool } from '../../kernel/host/pool';
import type { Helpers } from '../../kernel/host/tree-parts';
import type { LaidOut } from '../../kernel/host/settings';
import type { ThreadStart, TileDone, TileThread, TileWork } from '../../kernel/host/tile-work';
import { config } from '../config';

const LARGEST_COPY_BYTES = 2 ** 27;

/**
 * Two threads have a copy of a scene each, unless it is large: what both read of one copy they have to get from each
 * other's core, which takes 2 to 3 % of their time (bench/RESULTS.md). More threads share one, for so many copies would
 * crowd each other out of the cache that all have.
 */
export function openPool(module: WebAssembly.Module, laidOut: LaidOut): RenderPool {
  const { memory, buffers } = laidOut;
  const copied = buffers.length === 2 && memory.buffer.byteLength <= LARGEST_COPY_BYTES;
  const memories = copied ? [memory, copyOf(memory)] : buffers.map(() => memory);
  return new RenderPool(
    memories.map((memory, thread) => new NodeThread({ module, memory, thread })),
    laidOut,
    memories
  );
}

function copyOf(memory: WebAssembly.Memory): WebAssembly.Memory {
  const copy = createMemory(memory.buffer.byteLength);
  new Uint8Array(copy.buffer).set(new Uint8Array(memory.buffer));
  return copy;
}

/** Threads that build a large tree together with the one that asks. */
export const treeHelpers = (threads: number): Helpers => ({
  threads: Math.max(0, threads - 1),
  start(job, thread) {
    // one that comes too late finds nothing to do; nobody waits for it to end
    const worker = new Worker(config.built('tree-thread.mjs'), { workerData: { job, thread } });
    // the others take its parts; one that dies with a part is missed by who waits for that
    worker.on('error', (error) => console.error(`a thread that helps to build a tree: ${error.message}`));
    worker.unref();
  }
});

class NodeThread implements TileThread {
  private readonly worker: Worker;

  constructor(private readonly start: ThreadStart) {
    this.worker = new Worker(config.built('render-thread.mjs'), { workerData: start });
  }

  work(work: TileWork): Promise<TileDone> {
    const { worker } = this;
    return new Promise((resolve, reject) => {
      const settle = (action: () => void) => {
        worker.off('message', onMessage);
        worker.off('error', onError);
        worker.off('exit', onExit);
        action();
      };
      const onMessage = (message: TileDone) => settle(() => resolve(message));
      const onError = (error: Error) => settle(() => reject(error));
      const onExit = (code: number) =>
        settle(() => reject(new Error(`render thread ${this.start.thread} ended with code ${code}`)));
      worker.on('message', onMessage);
      worker.on('error', onError);
      worker.on('exit', onExit);
      worker.postMessage(work);
    });
  }

  async end(): Promise<void> {
    await this.worker.terminate();
  }
}
