/**
 * One job from its request to its end, as a state and a pure reducer. A job is work; what it makes (a proof, a file) is
 * stored elsewhere. Times in ms since 1970.
 *
 * A worker holds a job by a lease that it keeps renewing. Every claim raises `fence`; an action of a worker carries the
 * fence of its claim and does nothing when the job was claimed again since, so a worker that lost its lease cannot
 * write. Source: fencing tokens, Kleppmann 2017, Designing Data-Intensive Applications, chapter 8.
 */
import { assertNever } from '../result/assert-never';
import type { JobKind } from './kinds';

/** Stop and keep what there is, or remove it. */
export type StopMode = 'keep' | 'drop';

export type JobState =
  | { name: 'waiting' }
  | {
      name: 'running';
      worker: string;
      leaseUntil_ms: number;
      /** What somebody asked for meanwhile. */
      stop: StopMode | null;
      phase: JobPhase;
      /** Of the whole job, 0 to 1. */
      share: number;
      /** The share when it was claimed: a claim that got further was no failure. */
      shareAtClaim: number;
      secondsLeft: number | null;
    }
  | { name: 'done' }
  | { name: 'stopped'; mode: StopMode }
  | { name: 'failed'; message: string };

export type JobPhase = 'setup' | 'render' | 'denoise' | 'write';

export interface Job {
  id: string;
  kind: JobKind;
  project: string | null;
  /** The proof that it makes, for jobs that make one. */
  proof: string | null;
  state: JobState;
  fence: number;
  /** Claims in a row that ended without getting further. */
  attempts: number;
  /** How far it had come when it last stopped running, 0 to 1. */
  share: number;
  created_ms: number;
  started_ms: number | null;
  ended_ms: number | null;
}

export type JobAction =
  | { type: 'claim'; worker: string; now: number }
  | { type: 'heartbeat'; fence: number; now: number }
  | { type: 'progress'; fence: number; phase: JobPhase; share: number; secondsLeft: number | null }
  /** The worker ends in order and hands the job back unfinished. */
  | { type: 'release'; fence: number }
  | { type: 'complete'; fence: number; now: number }
  | { type: 'stopped'; fence: number; mode: StopMode; now: number }
  | { type: 'fail'; fence: number; message: string; now: number }
  | { type: 'request stop'; mode: StopMode; now: number }
  | { type: 'retry' };

export type RunningState = Extract<JobState, { name: 'running' }>;

export const LEASE_MS = 6000;
export const HEARTBEAT_MS = 1500;
const MAX_ATTEMPTS = 5;

const ABANDONED = `The render service ended ${MAX_ATTEMPTS} times while working on this. What is rendered so far is saved.`;

/** Whether a worker may claim it now. */
export const isClaimable = ({ state }: Job, now: number): boolean =>
  state.name === 'waiting' || (state.name === 'running' && state.leaseUntil_ms < now);

/** The job after an action; null when the action does not apply, as every action of a worker that lost its lease. */
export function reduceJob(job: Job, action: JobAction): Job | null {
  const { state } = job;
  switch (action.type) {
    case 'claim': {
      if (!isClaimable(job, action.now)) return null;
      // the worker before died; if it got further than where it began, that was no failed attempt
      const died = state.name === 'running';
      const attempts = died && state.share <= state.shareAtClaim ? job.attempts + 1 : died ? 1 : job.attempts;
      const share = died ? state.share : job.share;
      if (attempts >= MAX_ATTEMPTS)
        return { ...job, attempts, share, state: { name: 'failed', message: ABANDONED }, ended_ms: action.now };
      return {
        ...job,
        attempts,
        share,
        fence: job.fence + 1,
        started_ms: job.started_ms ?? action.now,
        state: {
          name: 'running',
          worker: action.worker,
          leaseUntil_ms: action.now + LEASE_MS,
          stop: died ? state.stop : null,
          phase: 'setup',
          share,
          shareAtClaim: share,
          secondsLeft: null
        }
      };
    }
    case 'heartbeat':
      return held(job, action.fence, (running) => ({
        ...job,
        state: { ...running, leaseUntil_ms: action.now + LEASE_MS }
      }));
    case 'progress': {
      const { phase, share, secondsLeft } = action;
      return held(job, action.fence, (running) => ({ ...job, state: { ...running, phase, share, secondsLeft } }));
    }
    case 'release':
      return held(job, action.fence, ({ share }) => ({ ...job, share, attempts: 0, state: { name: 'waiting' } }));
    case 'complete':
      return held(job, action.fence, () => ({ ...job, share: 1, state: { name: 'done' }, ended_ms: action.now }));
    case 'stopped':
      return held(job, action.fence, ({ share }) => ({
        ...job,
        share,
        state: { name: 'stopped', mode: action.mode },
        ended_ms: action.now
      }));
    case 'fail':
      return held(job, action.fence, ({ share }) => ({
        ...job,
        share,
        state: { name: 'failed', message: action.message },
        ended_ms: action.now
      }));
    case 'request stop':
      if (state.name === 'waiting')
        return { ...job, state: { name: 'stopped', mode: action.mode }, ended_ms: action.now };
      return state.name === 'running' ? { ...job, state: { ...state, stop: action.mode } } : null;
    case 'retry':
      return state.name === 'failed' || state.name === 'stopped'
        ? { ...job, attempts: 0, state: { name: 'waiting' }, ended_ms: null }
        : null;
    default:
      return assertNever(action, 'job action');
  }
}

function held(job: Job, fence: number, act: (running: RunningState) => Job): Job | null {
  return job.state.name === 'running' && job.fence === fence ? act(job.state) : null;
}
