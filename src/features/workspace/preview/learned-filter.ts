/**
 * The learned filter as the director uses it: in a worker that is begun when it is first wanted and ended when a run is
 * no longer.
 */
import type { Filter } from '../../../core/finishing/denoise/filter';
import type { DenoiserOrder, DenoiserReport } from './denoiser';

export class Cancelled extends Error {}

export class LearnedFilter implements Filter {
  readonly channels = 9;
  readonly linear = false;
  // of the small weights' network, known before it is opened
  readonly reachPx = 96;
  private worker: Worker | null = null;
  private opened: Promise<void> | null = null;
  private reject: ((error: Error) => void) | null = null;
  /** Why it cannot be had; it is not tried again. */
  fault: string | null = null;

  constructor(private readonly threads: () => number) {}

  async run(input: Float32Array, height: number, width: number): Promise<Float32Array> {
    if (!this.worker) {
      this.worker = new Worker(new URL('./denoiser.ts', import.meta.url), { type: 'module' });
      this.opened = this.sendOrder({ threads: this.threads() }, []).then(() => {});
    }
    await this.opened;
    const report = await this.sendOrder({ input, height, width }, [input.buffer as ArrayBuffer]);
    return 'output' in report ? report.output : new Float32Array();
  }

  /** Ends a run under way, which rejects with Cancelled. */
  cancel(): void {
    const { reject } = this;
    if (!reject) return;
    this.end();
    reject(new Cancelled());
  }

  end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.opened = null;
    this.reject = null;
  }

  private sendOrder(order: DenoiserOrder, transfer: Transferable[]): Promise<DenoiserReport> {
    const worker = this.worker!;
    return new Promise((resolve, reject) => {
      this.reject = reject;
      const fail = (message: string) => {
        if (this.worker !== worker) return; // of a run that was cancelled
        this.fault = message;
        this.end();
        reject(new Error(message));
      };
      worker.onmessage = ({ data }: MessageEvent<DenoiserReport>) => {
        this.reject = null;
        if ('fault' in data) fail(data.fault);
        else resolve(data);
      };
      worker.onerror = (event) => {
        // told by the promise, not by the page
        event.preventDefault();
        fail(event.message || 'the learned filter could not be started');
      };
      worker.postMessage(order, transfer);
    });
  }
}
