/** Measures what costs time in a picture, in a process of its own: patches of it, with one thing less at a time. */
import type { Brief } from '../../core/brief/brief';
import type { Cost, CostsSoFar, Saving } from '../../core/forecast/costs';
import { askWorker, type Said } from './ask-worker';

/** `brief` is of the small picture whose patches are rendered. */
export interface CostsJob {
  model: string;
  brief: Brief;
  savings: Saving[];
  /** What was measured before a stop. */
  known: Cost[];
  /** How many materials are tried besides: those that cover most of the picture. */
  materials: number;
  /** Of the whole picture: what only shows at it is measured at it. */
  size: Brief['size'];
}
export type CostsSaid = Said<{ costs: Cost[] }>;

const LONGEST_MS = 15 * 60_000;

/** `stop`: ends it; what was measured by then has been told. */
export const measureCosts = (
  job: CostsJob,
  onNews?: (news: CostsSoFar) => void,
  stop?: AbortSignal
): Promise<CostsSaid> => askWorker('costs-worker', job, LONGEST_MS, 'the measurement', { onNews, stop });
