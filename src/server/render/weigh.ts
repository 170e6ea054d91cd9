/** Weighs the objects of a model that was brought in before they were weighed, in a process of its own. */
import type { WeightOfGroup } from '../../core/scene/set-aside';
import { askWorker, type Said } from './ask-worker';

export interface WeighJob {
  model: string;
}
export type WeighSaid = Said<{ heaviest: WeightOfGroup[] }>;

const LONGEST_MS = 60_000;

export const weighModel = (job: WeighJob): Promise<WeighSaid> =>
  askWorker('weigh-worker', job, LONGEST_MS, 'weighing the model');
