/**
 * Work that somebody waits for in a request: it runs from here, one job of a lane after the other, and is seen in the
 * queue while it waits and runs.
 */
import PQueue from 'p-queue';
import { HEARTBEAT_MS } from '../../core/job/job';
import { JOB_KINDS, type JobKind, type Lane } from '../../core/job/kinds';
import { storageTroubleOf } from '../../core/result/storage-trouble';
import { singleton } from '../jobs/singleton';
import { sqliteQueue as queue } from '../store/job-queue';
import { newId } from './identify';

/** How many jobs of a lane run at once. Measurements beside each other would all be slower and none true. */
const AT_ONCE: Partial<Record<Lane, number>> = { deliver: 2 };

const lanes = () => singleton('attended lanes', () => new Map<Lane, PQueue>());

function laneOf(lane: Lane): PQueue {
  const all = lanes();
  const known = all.get(lane) ?? new PQueue({ concurrency: AT_ONCE[lane] ?? 1 });
  all.set(lane, known);
  return known;
}

/** `project`: that it is for; null for a library. */
export function attendJob<T>(kind: JobKind, project: string | null, work: () => Promise<T>): Promise<T> {
  return laneOf(JOB_KINDS[kind].lane).add(async () => {
    const worker = `${process.pid}`;
    const { id, fence } = queue.begin({ id: newId(), kind, project, proof: null, now: Date.now() }, worker);
    const heartbeats = setInterval(
      () => unlessLocked(() => queue.apply(id, { type: 'heartbeat', fence, now: Date.now() })),
      HEARTBEAT_MS
    );
    try {
      return await work();
    } finally {
      clearInterval(heartbeats);
      unlessLocked(() => queue.remove(id));
    }
  });
}

/** A write that may be left out while the database cannot be written to: the next one, or the sweep, makes up for it. */
function unlessLocked(write: () => unknown): void {
  try {
    write();
  } catch (error) {
    if (storageTroubleOf(error) === null) throw error;
  }
}

/** Whether a picture is being rendered: what is measured meanwhile would be wrong. */
export const isRendering = (): boolean => queue.open('render').some((job) => job.state.name === 'running');
