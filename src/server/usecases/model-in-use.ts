/** A model is not changed under a proof that is rendered of it. */
import { refused } from '../../core/result/result';
import { sqliteQueue as queue } from '../store/job-queue';

export const isModelInUse = (project: string): boolean => queue.open('render').some((job) => job.project === project);

export const MODEL_IN_USE = refused(
  'a proof of this project renders or waits; stop it, or let it end, and correct the model then',
  'busy'
);
