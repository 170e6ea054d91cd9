/**
 * Render threads of the browser. One outlives the scene that it was begun for: a worker takes longer to start than a
 * first look takes.
 */
import type { ThreadStart, TileDone, TileThread, TileWork } from '../../../kernel/host/tile-work';

export class WebThread implements TileThread {
  private readonly worker = new Worker(new URL('./tracer.ts', import.meta.url), { type: 'module' });
  private thread = 0;

  /** Works over this scene from now on; not while it is at work. */
  begin(start: ThreadStart): void {
    this.thread = start.thread;
    this.worker.postMessage(start);
  }

  /** Lets go of the scene and its memory. */
  rest(): void {
    this.worker.postMessage(null);
  }

  work(work: TileWork): Promise<TileDone> {
    return new Promise((resolve, reject) => {
      this.worker.onmessage = ({ data }: MessageEvent<TileDone>) => resolve(data);
      this.worker.onerror = (event) => {
        // told by the promise, not by the page
        event.preventDefault();
        reject(new Error(`preview thread ${this.thread} broke off: ${event.message}`));
      };
      this.worker.postMessage(work);
    });
  }

  async end(): Promise<void> {
    this.worker.terminate();
  }
}
