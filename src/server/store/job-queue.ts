/** The queue of this machine, in its database. What an action does is decided by core/job; this loads, applies, saves. */
import { type Job, type JobAction, type JobPhase, type JobState, reduceJob, type StopMode } from '../../core/job/job';
import { JOB_KINDS, type JobKind, type Lane, SERVICE_LANES } from '../../core/job/kinds';
import type { JobQueue, NewJob } from '../../core/job/queue';
import { assertNever } from '../../core/result/assert-never';
import { database, prepared } from './database';

interface JobRow {
  id: string;
  kind: JobKind;
  lane: Lane;
  priority: number;
  project_id: string | null;
  proof_id: string | null;
  state: JobState['name'];
  stop: StopMode | null;
  worker: string | null;
  fence: number;
  lease_until_ms: number | null;
  attempts: number;
  phase: JobPhase | null;
  share: number;
  share_at_claim: number;
  seconds_left: number | null;
  error: string | null;
  created_at_ms: number;
  started_at_ms: number | null;
  ended_at_ms: number | null;
}

const COLUMNS = [
  'id',
  'kind',
  'lane',
  'priority',
  'project_id',
  'proof_id',
  'state',
  'stop',
  'worker',
  'fence',
  'lease_until_ms',
  'attempts',
  'phase',
  'share',
  'share_at_claim',
  'seconds_left',
  'error',
  'created_at_ms',
  'started_at_ms',
  'ended_at_ms'
] as const satisfies readonly (keyof JobRow)[];
const SAVE = `INSERT INTO jobs (${COLUMNS.join(', ')}) VALUES (${COLUMNS.map((c) => `:${c}`).join(', ')})
  ON CONFLICT (id) DO UPDATE SET ${COLUMNS.map((c) => `${c} = excluded.${c}`).join(', ')}`;
const OPEN = "state IN ('waiting', 'running')";
// what somebody runs comes before what waits
const IN_ORDER = "ORDER BY state = 'waiting', priority DESC, created_at_ms, id";

function stateOf(row: JobRow): JobState {
  switch (row.state) {
    case 'waiting':
    case 'done':
      return { name: row.state };
    case 'running':
      return {
        name: 'running',
        worker: row.worker!,
        leaseUntil_ms: row.lease_until_ms!,
        stop: row.stop,
        phase: row.phase ?? 'setup',
        share: row.share,
        shareAtClaim: row.share_at_claim,
        secondsLeft: row.seconds_left
      };
    case 'stopped':
      return { name: 'stopped', mode: row.stop ?? 'keep' };
    case 'failed':
      return { name: 'failed', message: row.error ?? '' };
    default:
      return assertNever(row.state, 'job state');
  }
}

const toJob = (row: JobRow): Job => ({
  id: row.id,
  kind: row.kind,
  project: row.project_id,
  proof: row.proof_id,
  state: stateOf(row),
  fence: row.fence,
  attempts: row.attempts,
  share: row.share,
  created_ms: row.created_at_ms,
  started_ms: row.started_at_ms,
  ended_ms: row.ended_at_ms
});

function toRow(job: Job): JobRow {
  const { state } = job;
  const running = state.name === 'running' ? state : null;
  const stopped = state.name === 'stopped' ? state.mode : null;
  return {
    id: job.id,
    kind: job.kind,
    ...JOB_KINDS[job.kind],
    project_id: job.project,
    proof_id: job.proof,
    state: state.name,
    stop: running ? running.stop : stopped,
    worker: running?.worker ?? null,
    fence: job.fence,
    lease_until_ms: running?.leaseUntil_ms ?? null,
    attempts: job.attempts,
    phase: running?.phase ?? null,
    share: running?.share ?? job.share,
    share_at_claim: running?.shareAtClaim ?? 0,
    seconds_left: running?.secondsLeft ?? null,
    error: state.name === 'failed' ? state.message : null,
    created_at_ms: job.created_ms,
    started_at_ms: job.started_ms,
    ended_at_ms: job.ended_ms
  };
}

const save = (job: Job): Job => {
  prepared(SAVE).run(toRow(job));
  return job;
};
const load = (id: string): Job | null => {
  const row = prepared('SELECT * FROM jobs WHERE id = ?').get(id) as JobRow | undefined;
  return row ? toJob(row) : null;
};
const created = ({ id, kind, project, proof, now }: NewJob): Job => ({
  id,
  kind,
  project,
  proof,
  state: { name: 'waiting' },
  fence: 0,
  attempts: 0,
  share: 0,
  created_ms: now,
  started_ms: null,
  ended_ms: null
});
/** Sees what other processes wrote before, and keeps them from writing until its end. */
const atomically = <T>(work: () => T): T =>
  database().inTransaction ? work() : database().transaction(work).immediate();

export const sqliteQueue: JobQueue = {
  enqueue: (job) => save(created(job)),

  begin: (job, worker) => save(reduceJob(created(job), { type: 'claim', worker, now: job.now })!),

  claim: (lane, worker, now) =>
    atomically(() => {
      const rows = prepared(
        `SELECT * FROM jobs WHERE lane = :lane AND (state = 'waiting' OR (state = 'running' AND lease_until_ms < :now)) ${IN_ORDER}`
      ).all({ lane, now }) as JobRow[];
      for (const row of rows) {
        const job = reduceJob(toJob(row), { type: 'claim', worker, now });
        if (!job) continue;
        save(job);
        // one that was given up is not for this worker
        if (job.state.name === 'running') return job;
      }
      return null;
    }),

  apply: (id, action: JobAction) =>
    atomically(() => {
      const job = load(id);
      const next = job && reduceJob(job, action);
      if (!next) return false;
      save(next);
      return true;
    }),

  find: load,

  ofProof(proof) {
    const row = prepared('SELECT * FROM jobs WHERE proof_id = ? ORDER BY created_at_ms DESC, id DESC LIMIT 1').get(
      proof
    ) as JobRow | undefined;
    return row ? toJob(row) : null;
  },

  open(lane) {
    const rows = lane
      ? prepared(`SELECT * FROM jobs WHERE lane = ? AND ${OPEN} ${IN_ORDER}`).all(lane)
      : prepared(`SELECT * FROM jobs WHERE ${OPEN} ${IN_ORDER}`).all();
    return (rows as JobRow[]).map(toJob);
  },

  sweep(now) {
    const service = SERVICE_LANES.map((lane) => `'${lane}'`).join(', ');
    prepared(`DELETE FROM jobs WHERE lane NOT IN (${service}) AND (lease_until_ms IS NULL OR lease_until_ms < ?)`).run(
      now
    );
  },

  remove(id) {
    prepared('DELETE FROM jobs WHERE id = ?').run(id);
  }
};
