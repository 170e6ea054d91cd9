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
import type { FinishOrder, FinishReport, SeenPress } from './messages';

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
  /** Share of the picture whose colour a press cannot hold. */
  lostShare: number;
  /** From the order to the picture. */
  ms: number;
}

const MOST_WORKERS = 4;

/** Of an order whose answer nobody waits for any more. */
export class Ended extends Error {}

export class FinishWorkers {
  private readonly workers: Worker[];
  private readonly waiting = new Map<
    number,
    { done: (report: FinishReport) => void; failed: (error: Error) => void }
  >();
  private id = 0;

  constructor() {
    const count = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2));
    this.workers = Array.from({ length: count }, () => {
      const worker = new Worker(new URL('./finish-worker.ts', import.meta.url), { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<FinishReport>) => this.take(data);
      worker.onerror = (event) => this.fail(new Error(event.message || 'it could not be started'));
      return worker;
    });
  }

  /** Reads a stage film in place of the one that is there. */
  async open(url: string): Promise<OpenedFilm> {
    const of = this.workers.length;
    const reports = await Promise.all(
      this.workers.map((worker, index) => this.order(worker, (id) => ({ kind: 'open', id, url, index, of })))
    );
    return reports[0] as Extract<FinishReport, { kind: 'opened' }>;
  }

  async develop(
    finish: Finish,
    within: SheetShare,
    level: StageLevel,
    press: SeenPress | null = null
  ): Promise<Developed> {
    const began = performance.now();
    const parts = await Promise.all(
      this.workers.map(async (worker) => {
        const report = await this.order(worker, (id) => ({ kind: 'develop', id, finish, within, level, press }));
        return (report as Extract<FinishReport, { kind: 'rows' }>).rows;
      })
    );
    const { width, height } = parts[0]!;
    const ms = performance.now() - began;
    const lostShare = parts.reduce((sum, { lost }) => sum + lost, 0) / (width * height);
    return { level, width, height, rows: parts, histogram: joinHistograms(parts), lostShare, ms };
  }

  async propose(finish: Finish): Promise<Proposal | null> {
    const report = await this.order(this.workers[0]!, (id) => ({ kind: 'propose', id, finish }));
    return (report as Extract<FinishReport, { kind: 'proposal' }>).proposal;
  }

  async pick(u: number, v: number): Promise<Foremost> {
    const report = await this.order(this.workers[0]!, (id) => ({ kind: 'pick', id, u, v }));
    return report as Extract<FinishReport, { kind: 'picked' }>;
  }

  /** Rejects with the reason when the worker cannot follow it. */
  private order(worker: Worker, orderOf: (id: number) => FinishOrder): Promise<FinishReport> {
    return new Promise((done, failed) => {
      const id = ++this.id;
      this.waiting.set(id, { done, failed });
      this.send(worker, orderOf(id));
    });
  }

  end(): void {
    for (const worker of this.workers) worker.terminate();
    this.fail(new Ended());
  }

  private fail(error: Error): void {
    for (const { failed } of this.waiting.values()) failed(error);
    this.waiting.clear();
  }

  private send(worker: Worker, order: FinishOrder): void {
    worker.postMessage(order);
  }

  private take(report: FinishReport): void {
    const asked = this.waiting.get(report.id);
    this.waiting.delete(report.id);
    if (report.kind === 'fault') asked?.failed(new Error(report.message));
    else asked?.done(report);
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
