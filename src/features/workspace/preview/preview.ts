'use client';
/** The live preview as the stage holds it: starts its director, gives it orders, paints what comes back. */
import type { Order, PreviewJob, PreviewPicture, Report } from './messages';

/** Why this browser cannot show one; null when it can. */
export function whyNoPreview(): string | null {
  if (typeof SharedArrayBuffer === 'undefined' || !crossOriginIsolated)
    return 'this page gets no shared memory from the browser; open Sphaera at its own address, by http://127.0.0.1 or https';
  if (!WebAssembly.validate(SIMD_MODULE)) return 'this browser’s WebAssembly lacks SIMD; a newer one has it';
  return null;
}

// (module (func (result v128) i32.const 0 i8x16.splat i8x16.popcnt))
const SIMD_MODULE = new Uint8Array([
  0, 97, 115, 109, 1, 0, 0, 0, 1, 5, 1, 96, 0, 1, 123, 3, 2, 1, 0, 10, 10, 1, 8, 0, 65, 0, 253, 15, 253, 98, 11
]);

export class Preview {
  private readonly director = new Worker(new URL('./director.ts', import.meta.url), { type: 'module' });
  private job = 0;
  /** The first job of the frame that is wanted now, and that frame. */
  private first = 0;
  private frame: string | null = null;

  constructor(
    private readonly events: {
      onPicture(picture: PreviewPicture): void;
      onRefused(message: string): void;
    }
  ) {
    this.director.onmessage = ({ data }: MessageEvent<Report>) => {
      // what was under way for another frame comes too late
      if (this.frame === null || data.job < this.first) return;
      if (data.kind === 'picture') this.events.onPicture(data);
      else this.events.onRefused(data.message);
    };
    this.director.onerror = (event) => this.events.onRefused(event.message || 'it could not be started');
  }

  show(job: Omit<PreviewJob, 'id'> | null): void {
    this.job++;
    if (job?.frame !== this.frame) this.first = this.job;
    this.frame = job?.frame ?? null;
    this.sendOrder({ kind: 'show', job: job && { ...job, id: this.job } });
  }

  getReady(job: Omit<PreviewJob, 'id'>): void {
    this.sendOrder({ kind: 'get ready', job: { ...job, id: 0 } });
  }

  limitThreads(threads: number): void {
    this.sendOrder({ kind: 'threads', threads });
  }

  pause(paused: boolean): void {
    this.sendOrder({ kind: 'pause', paused });
  }

  /** Ends it and its threads, and gives back their memory. */
  end(): void {
    this.director.terminate();
  }

  private sendOrder(order: Order): void {
    this.director.postMessage(order);
  }
}
