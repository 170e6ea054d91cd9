/** What goes between the page and the preview's director. */
import type { Brief } from '../../../core/brief/brief';

/** As many as anybody may ask for; each has a buffer of 256 kB. */
export const MAX_THREADS = 32;

export interface PreviewJob {
  id: number;
  project: string;
  brief: Brief;
  /** Of the picture on the stage, px; even numbers. */
  width: number;
  height: number;
  /** Equal for jobs in which everything stands at the same place of the picture; a first look of one serves another. */
  frame: string;
}

/** From the page. */
export type Order =
  | { kind: 'threads'; threads: number }
  /** Renders this from now on; null stops. */
  | { kind: 'show'; job: PreviewJob | null }
  /** Has the model's pack fetched before it is wanted. */
  | { kind: 'get ready'; job: PreviewJob }
  | { kind: 'pause'; paused: boolean };

export interface PreviewPicture {
  kind: 'picture';
  job: number;
  width: number;
  height: number;
  rgba: ArrayBuffer;
  /** Mean samples a pixel of the picture in the stage's own size; 0 for the first quick look at half its size. */
  samples: number;
  /** Raw, L*. */
  grain: number | null;
  ev100: number;
  /** What took the grain away for this look. */
  filter: 'none' | 'guided' | 'learned';
  ended: boolean;
  /** Of a film that has ended: its hash. */
  film: string | null;
}

/** From the director. `refused`: a sentence that says why there is nothing to see. */
export type Report = PreviewPicture | { kind: 'refused'; job: number; message: string };
