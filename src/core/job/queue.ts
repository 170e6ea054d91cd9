/**
 * The queue as its users see it. One adapter keeps it in the database of this machine (server/store/job-queue.ts);
 * another may keep it on a queue server for several machines. Every method is one atomic step.
 */
import type { Job, JobAction } from './job';
import type { JobKind, Lane } from './kinds';

export interface NewJob {
  id: string;
  kind: JobKind;
  project: string | null;
  proof: string | null;
  now: number;
}

export interface JobQueue {
  enqueue(job: NewJob): Job;
  /** The next job of a lane, claimed for a worker; null when there is none. */
  claim(lane: Lane, worker: string, now: number): Job | null;
  /** A job that its asker runs at once: it is claimed from the beginning. */
  begin(job: NewJob, worker: string): Job;
  /** Applies an action by core/job; false when it does not apply. */
  apply(id: string, action: JobAction): boolean;
  find(id: string): Job | null;
  ofProof(proof: string): Job | null;
  /** Jobs that wait or run, in the order in which they will run. */
  open(lane?: Lane): Job[];
  /** Forgets jobs whose askers ran them and are gone. */
  sweep(now: number): void;
  /** Forgets a job that has ended and left nothing. */
  remove(id: string): void;
}
