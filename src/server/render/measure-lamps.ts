/**
 * Measures what each group of lamps brings to a picture, in a process of its own: a small render with a layer a group.
 */
import type { Brief } from '../../core/brief/brief';
import type { MeasuredLamp } from '../../core/film/lamp-shares';
import { askWorker, type Said } from './ask-worker';

/** `brief` is of the small picture that is rendered for it. */
export interface MeasureJob {
  model: string;
  brief: Brief;
}
export type MeasureSaid = Said<{ lamps: MeasuredLamp[] }>;

const LONGEST_MS = 5 * 60_000;

export const measureLamps = (job: MeasureJob): Promise<MeasureSaid> =>
  askWorker('measure-lamps-worker', job, LONGEST_MS, 'the measurement');
