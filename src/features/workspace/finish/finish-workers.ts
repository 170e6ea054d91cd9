/** The film on the stage, developed by a few workers, each of which has some of its rows. */
import type { Finish } from '../../../core/brief/brief';
import type { Proposal } from '../../../core/finishing/propose';
import {
  type DevelopedRows,
  type Histogram,
  joinHistograms,
  type StageLevel
} from '../../../core/finishing/stage-developer';
import type { SheetShare } from '../../../core/output/size';
import type { FinishOrder, FinishReport } from './messages';

export interface OpenedFilm {
  groups: string[];
  luminanceRatio: number | null;
  denoised: boolean;
  /** Whether the film keeps masks of its parts and materials. */
  hasMasks: boolean;
}

/** What is foremost at a place, by its names in the film. */
export interface Foremost {
  part: string | null;
  material: string | null;
}

export interface Developed {
  level: StageLevel;
  width: number;
  height: number;
  rows: DevelopedRows[];
  histogram: Histogram;
  /** From the order to the picture. */
  ms: number;
}

const MOST_WORKERS = 4;

export class FinishWorkers {
  private readonly workers: Worker[];
  private readonly waiting = new Map<number, (report: FinishReport) => void>();
  private opening: { left: number; done: (opened: OpenedFilm) => void; failed: (message: string) => void } | null =
    null;
  private id = 0;

  constructor(private readonly onFault: (message: string) => void) {
    const count = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2));
    this.workers = Array.from({ length: count }, () => {
      const worker = new Worker(new URL('./finish-worker.ts', import.meta.url), { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<FinishReport>) => this.take(data);
      worker.onerror = (event) => this.take({ kind: 'fault', message: event.message || 'it could not be started' });
      return worker;
    });
  }

  /** Reads a stage film in place of the one that is there. */
  open(url: string): Promise<OpenedFilm> {
    return new Promise((done, failed) => {
      this.opening = { left: this.workers.length, done, failed: (message) => failed(new Error(message)) };
      for (const [index, worker] of this.workers.entries())
        this.send(worker, { kind: 'open', url, index, of: this.workers.length });
    });
  }

  async develop(finish: Finish, within: SheetShare, level: StageLevel): Promise<Developed> {
    const began = performance.now();
    const parts = await Promise.all(
      this.workers.map(
        (worker) =>
          new Promise<DevelopedRows>((done) => {
            const id = ++this.id;
            this.waiting.set(id, (report) => report.kind === 'rows' && done(report.rows));
            this.send(worker, { kind: 'develop', id, finish, within, level });
          })
      )
    );
    const { width, height } = parts[0]!;
    const ms = performance.now() - began;
    return { level, width, height, rows: parts, histogram: joinHistograms(parts), ms };
  }

  propose(finish: Finish): Promise<Proposal | null> {
    return new Promise((done) => {
      const id = ++this.id;
      this.waiting.set(id, (report) => report.kind === 'proposal' && done(report.proposal));
      this.send(this.workers[0]!, { kind: 'propose', id, finish });
    });
  }

  pick(u: number, v: number): Promise<Foremost> {
    return new Promise((done) => {
      const id = ++this.id;
      this.waiting.set(id, (report) => report.kind === 'picked' && done(report));
      this.send(this.workers[0]!, { kind: 'pick', id, u, v });
    });
  }

  end(): void {
    for (const worker of this.workers) worker.terminate();
  }

  private send(worker: Worker, order: FinishOrder): void {
    worker.postMessage(order);
  }

  private take(report: FinishReport): void {
    if (report.kind === 'fault') {
      if (this.opening) this.opening.failed(report.message);
      else this.onFault(report.message);
      this.opening = null;
    } else if (report.kind === 'opened') {
      const { opening } = this;
      if (!opening || --opening.left > 0) return;
      this.opening = null;
      opening.done(report);
    } else {
      this.waiting.get(report.id)?.(report);
      this.waiting.delete(report.id);
    }
  }
}

/** Draws a picture on a canvas, which takes its size. */
export function paint(canvas: HTMLCanvasElement, { width, height, rows }: Developed): void {
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  const context = canvas.getContext('2d');
  for (const { y, pixels } of rows)
    if (pixels.length > 0)
      context?.putImageData(
        new ImageData(new Uint8ClampedArray(pixels.buffer), width, pixels.length / (4 * width)),
        0,
        y
      );
}
