/** Render threads of the browser. */
import type { ThreadStart, TileDone, TileThread, TileWork } from '../../../kernel/host/tile-work';

export class WebThread implements TileThread {
  private readonly worker = new Worker(new URL('./tracer.ts', import.meta.url), { type: 'module' });

  constructor(private readonly start: ThreadStart) {
    this.worker.postMessage(start);
  }

  work(work: TileWork): Promise<TileDone> {
    return new Promise((resolve, reject) => {
      this.worker.onmessage = ({ data }: MessageEvent<TileDone>) => resolve(data);
      this.worker.onerror = (event) => reject(new Error(`preview thread ${this.start.thread} broke off: ${event.message}`));
      this.worker.postMessage(work);
    });
  }

  async end(): Promise<void> {
    this.worker.terminate();
  }
}
