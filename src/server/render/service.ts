/**
 * The render service: a process that claims jobs from the queue and has each done by a task in a process of its own. It
 * does no work itself, so it renews leases and sees stops whatever a task is busy with.
 */
import { randomUUID } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { HEARTBEAT_MS, type Job } from '../../core/job/job';
import { SERVICE_LANES, type ServiceLane } from '../../core/job/kinds';
import { type Refused, refused } from '../../core/result/result';
import { STORAGE_SENTENCES, type StorageTrouble, storageTroubleOf } from '../../core/result/storage-trouble';
import { config } from '../config';
import { openTask } from '../jobs/run-task';
import { giveWayTo } from '../jobs/serve-task';
import type { RenderOutcome } from '../jobs/tasks';
import { closeDatabase } from '../store/database';
import { sqliteQueue as queue } from '../store/job-queue';
import { leaseOf } from '../store/lease';
import { findProof, forgetFilm, haltProof } from '../store/proofs';
import { DAMAGED_FILM } from '../files/film-store';
import { recountStorage } from '../files/storage';
import { storageState } from '../files/storage-state';
import { sweepFiles } from '../files/sweep';
import { isOriginal } from '../store/model-files';
import { isModel, isTable, isProof } from '../store/removal';
import { purgeRemoved } from '../files/purge-removed';

const IDLE_MS = 250;
const PURGE_MS = 30_000;
const SWEEP_MS = 3_600_000;
// While the storage cannot be written to.
const TROUBLE_MS = 2000;
const STOP_CHECK_MS = 250;
// A task that was asked to end and has not after this is killed; its unfinished tile is rendered again.
const RELEASE_MS = 4000;

const worker = `${process.pid}-${randomUUID().slice(0, 8)}`;
let ending = false;
let swept_ms = 0;
/** The last trouble that was written to the log. */
let told: StorageTrouble | null = null;
for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    ending = true;
  });
// the process that started this one may have been killed; then nothing else would end it
setInterval(() => {
  if (process.ppid !== config.starter) ending = true;
}, 1000).unref();
// the desk and the workspace come first on a busy machine
giveWayTo(10);
while (!ending && !attempt(() => queue.sweep(Date.now()))) await sleep(TROUBLE_MS);
void tidyUp(true);
setInterval(() => void tidyUp(false), PURGE_MS).unref();

await Promise.all(SERVICE_LANES.map(work));
closeDatabase();
process.exit(0);

/** Deletes what was removed ten minutes ago; hourly, and at the start, what nothing owns. */
async function tidyUp(first: boolean): Promise<void> {
  try {
    await purgeRemoved();
    if (first || Date.now() - swept_ms > SWEEP_MS) {
      swept_ms = Date.now();
      await sweepFiles({ isProof, isModel, isOriginal, isTable });
      await recountStorage();
    }
  } catch (error) {
    console.error('files that nothing owns could not be collected:', error);
  }
}

async function work(lane: ServiceLane): Promise<void> {
  while (!ending) {
    let job: Job | null = null;
    const fine = storageState() === 'fine' && attempt(() => (job = queue.claim(lane, worker, Date.now())));
    if (job) await runJob(job, lane);
    else await sleep(fine ? IDLE_MS : TROUBLE_MS);
  }
}

/** Does what writes to the database; false while that cannot be written to. */
function attempt(write: () => unknown): boolean {
  try {
    write();
    return true;
  } catch (error) {
    const trouble = storageTroubleOf(error);
    if (!trouble) throw error;
    if (trouble !== told) console.error(`the render service waits: ${STORAGE_SENTENCES[trouble]}`);
    told = trouble;
    return false;
  }
}

async function runJob(job: Job, lane: ServiceLane): Promise<void> {
  const { id, fence } = job;
  const proof = job.proof!;
  // ended by a service that died before it could say so
  if (findProof(proof)?.state !== 'open') {
    queue.apply(id, { type: 'complete', fence, now: Date.now() });
    return;
  }
  const task = openTask(lane);
  let phase = 'setup';
  let released: number | null = null;
  const heartbeats = setInterval(
    () => attempt(() => queue.apply(id, { type: 'heartbeat', fence, now: Date.now() })),
    HEARTBEAT_MS
  );
  const stops = setInterval(() => {
    const now = queue.find(id);
    if (!now || now.fence !== fence || now.state.name !== 'running') return task.kill(LOST);
    if (ending) {
      released ??= Date.now();
      task.stop('release');
      // setting up has nothing to lose
      if (phase === 'setup' || Date.now() - released > RELEASE_MS) task.kill(RELEASED);
      return;
    }
    const { stop } = now.state;
    // what is removed needs no end in order, and before the first sample there is nothing to finish
    if (stop === 'drop' || (stop === 'keep' && phase === 'setup' && findProof(proof)?.samples === 0))
      task.kill(DROPPED);
    else if (stop === 'keep') task.stop('keep');
  }, STOP_CHECK_MS);
  const result = await task.ask({ proof, lease: leaseOf(job) }, (progress) => {
    phase = progress.phase;
    attempt(() => queue.apply(id, { type: 'progress', fence, ...progress }));
  });
  clearInterval(heartbeats);
  clearInterval(stops);
  await task.close();
  // one whose end cannot be written is claimed again when its lease is over
  attempt(() => endJob(job, result.ok ? result.value : result));
}

const LOST = refused('another service works on this', 'lost');
const RELEASED = refused('the service ends', 'released');
const DROPPED = refused('it was stopped', 'dropped');

function endJob({ id, fence, proof }: Job, end: RenderOutcome | Refused): void {
  const now = Date.now();
  const outcome = typeof end === 'string' ? end : end.code;
  switch (outcome) {
    case 'done':
      queue.apply(id, { type: 'complete', fence, now });
      return;
    case 'kept':
      queue.apply(id, { type: 'stopped', mode: 'keep', fence, now });
      return;
    case 'dropped':
      if (queue.apply(id, { type: 'stopped', mode: 'drop', fence, now })) haltProof(proof!, now);
      return;
    case 'released':
    case 'lost':
    // gone on with when there is room again
    case 'full':
    case 'read_only':
    case 'locked':
      queue.apply(id, { type: 'release', fence });
      return;
    default:
      // the next render of its brief begins anew
      if (outcome === DAMAGED_FILM) forgetFilm(proof!);
      queue.apply(id, { type: 'fail', message: failureOf(end as Refused), fence, now });
  }
}

function failureOf({ code, message }: Refused): string {
  if (code === 'bad_brief' || code === 'dark') return `This brief cannot be rendered: ${message}.`;
  if (code === 'fault' || code === 'crashed')
    return `Something went wrong on our side: ${message}. What is rendered so far is saved and can be continued.`;
  return `${message[0]!.toUpperCase()}${message.slice(1)}.`;
}
