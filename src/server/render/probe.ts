/** Probes a brief in a process of its own: patches rendered at two sizes of its picture (core/forecast). */
import type { Brief } from '../../core/brief/brief';
import type { Probe } from '../../core/forecast/forecast';
import { type AskOptions, askWorker, type Said } from './ask-worker';

export interface ProbeJob {
  model: string;
  brief: Brief;
}
export type ProbeSaid = Said<{ probe: Probe }>;

const LONGEST_MS = 3 * 60_000;

export const probeBrief = (job: ProbeJob, attend: AskOptions<never>['attend']): Promise<ProbeSaid> =>
  askWorker('probe-worker', job, LONGEST_MS, 'the forecast’s measurement', { attend });
