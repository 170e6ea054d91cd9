/** Renders a little piece of a picture as it would be, in a process of its own. */
import type { Brief } from '../../core/brief/brief';
import { askWorker, type Said } from './ask-worker';

/** `brief` is of the piece alone: its patch. */
export interface CropJob {
  model: string;
  brief: Brief;
}
/** `png`: the piece; `samples`: the mean of its pixels; `whole`: false when its time was over before its samples. */
export type CropSaid = Said<{ png: Uint8Array; samples: number; whole: boolean }>;

const LONGEST_MS = 3 * 60_000;

export const renderCrop = (job: CropJob): Promise<CropSaid> => askWorker('crop-worker', job, LONGEST_MS, 'the piece');
