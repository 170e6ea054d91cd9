/** The other end of run-task.ts, in the task's own process. */
import { setPriority } from 'node:os';
import type { StopMode } from '../../core/job/job';
import { Refusal } from '../../core/result/result';
import { STORAGE_SENTENCES, storageTroubleOf } from '../../core/result/storage-trouble';
import { config } from '../config';
import type { TaskOrder, TaskReport } from './messages';
import type { TaskInput, TaskName, TaskProgress, TaskResult } from './tasks';

export interface TaskContext<N extends TaskName> {
  progress(progress: TaskProgress<N>): void;
  /** Work that can be paused awaits this between its pieces. */
  untilResumed(): Promise<void>;
  /** What it was asked to end by; null while it may go on. */
  stopRequest(): StopMode | 'release' | null;
}

/**
 * Answers requests until the process that started this one is gone. A thrown Refusal is sent as a refusal; every other error
 * is a fault of ours, and goes to standard error too.
 */
export function serveTask<N extends TaskName>(
  _name: N,
  work: (input: TaskInput<N>, context: TaskContext<N>) => Promise<TaskResult<N>>
): void {
  let paused = Promise.resolve();
  let resume = () => {};
  let stop: StopMode | 'release' | null = null;
  const send = (report: TaskReport) => {
    if (process.connected) process.send!(report);
  };
  const answer = async (id: number, input: TaskInput<N>) => {
    try {
      const result = await work(input, {
        progress: (progress) => send({ type: 'progress', id, progress }),
        untilResumed: () => paused,
        stopRequest: () => stop
      });
      send({ type: 'result', id, result });
    } catch (error) {
      if (error instanceof Refusal) return send({ type: 'refused', id, code: error.code, message: error.message });
      const found = storageTroubleOf(error);
      const trouble = found === 'read_only' && isElsewhere(error) ? null : found;
      if (trouble) return send({ type: 'refused', id, code: trouble, message: STORAGE_SENTENCES[trouble] });
      console.error(error);
      send({ type: 'fault', id, message: error instanceof Error ? error.message : String(error) });
    }
  };
  process.on('message', (order: TaskOrder) => {
    if (order.type === 'request') void answer(order.id, order.input as TaskInput<N>);
    else if (order.type === 'stop') stop = order.mode;
    else {
      resume();
      if (order.paused) paused = new Promise((resolve) => (resume = resolve));
    }
  });
  process.on('disconnect', () => process.exit(0));
  // a terminal sends these to every process; the one that started this one decides
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => {});
}

/** Of a file that is none of ours, as a model on the disk of who calls the command. */
function isElsewhere(error: unknown): boolean {
  const { path } = error as NodeJS.ErrnoException;
  return path !== undefined && !path.startsWith(config.dataDir);
}

/** Lets what somebody looks at or waits for come first on a busy machine. */
export function giveWayTo(nice: number): void {
  try {
    setPriority(nice);
  } catch {
    // not allowed everywhere
  }
}
