/**
 * The one way to run a task in a process of its own: typed messages, progress, pause and stop, limits of time and memory,
 * and an end that is always reported. A task dies with the process that started it.
 */
import { type ChildProcess, spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { StopMode } from '../../core/job/job';
import { type Refused, type Result, refused } from '../../core/result/result';
import { config } from '../config';
import type { TaskOrder, TaskReport } from './messages';
import { singleton } from './singleton';
import { TASK_LIMITS, type TaskInput, type TaskName, type TaskProgress, type TaskResult } from './tasks';

export interface TaskOptions<N extends TaskName> {
  onProgress?: (progress: TaskProgress<N>) => void;
  /** Ends it at once, without a result. */
  signal?: AbortSignal;
  /** Receives what pauses it and lets it go on; returns what is called at its end. */
  attend?: (pause: (paused: boolean) => void) => () => void;
  /** In place of the catalogue's limits. */
  maxSeconds?: number;
  maxMemoryMb?: number;
}

/** Runs a task once. */
export async function runTask<N extends TaskName>(
  name: N,
  input: TaskInput<N>,
  { signal, attend, onProgress, ...limits }: TaskOptions<N> = {}
): Promise<Result<TaskResult<N>>> {
  const { what } = TASK_LIMITS[name];
  if (signal?.aborted) return refused(`${what} was stopped`, 'stopped');
  const task = openTask(name, limits);
  const onAbort = () => task.kill(refused(`${what} was stopped`, 'stopped'));
  signal?.addEventListener('abort', onAbort);
  const leave = attend?.((paused) => task.pause(paused));
  const result = await task.ask(input, onProgress);
  signal?.removeEventListener('abort', onAbort);
  leave?.();
  await task.close();
  return result;
}

export interface OpenTask<N extends TaskName> {
  ask(input: TaskInput<N>, onProgress?: (progress: TaskProgress<N>) => void): Promise<Result<TaskResult<N>>>;
  pause(paused: boolean): void;
  /** Asks it to end by itself; it answers with what it makes of that. */
  stop(mode: StopMode | 'release'): void;
  /** Ends it at once; what was asked is answered with `why`. */
  kill(why: Refused): void;
  /** Lets it end, and waits for it. */
  close(): Promise<void>;
  readonly ended: boolean;
}

const MEMORY_CHECK_MS = 500;

/** Opens a task that answers several requests. */
export function openTask<N extends TaskName>(
  name: N,
  limits: Pick<TaskOptions<N>, 'maxSeconds' | 'maxMemoryMb'> = {}
): OpenTask<N> {
  const { what, maxSeconds, maxMemoryMb } = { ...TASK_LIMITS[name], ...limits };
  const child = spawn(
    process.execPath,
    [
      '--enable-source-maps',
      ...(maxMemoryMb === null ? [] : [`--max-old-space-size=${maxMemoryMb}`]),
      config.built(`task-${name}.mjs`)
    ],
    {
      cwd: config.root,
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
      serialization: 'advanced',
      env: {
        ...config.childEnvironment,
        SPHAERA_DATA: config.dataDir,
        SPHAERA_THREADS: String(config.threads),
        SPHAERA_MAX_PACK_BYTES: String(config.maxPackBytes)
      }
    }
  );
  children().add(child);

  interface Waiting {
    resolve: (result: Result<TaskResult<N>>) => void;
    onProgress?: ((progress: TaskProgress<N>) => void) | undefined;
  }
  const waiting = new Map<number, Waiting>();
  let lastId = 0;
  let ended = false;
  let why: Refused | null = null;
  let complaint = '';

  const settle = (id: number, result: Result<TaskResult<N>>) => {
    waiting.get(id)?.resolve(result);
    waiting.delete(id);
  };
  const kill = (reason: Refused) => {
    why ??= reason;
    child.kill('SIGKILL');
  };

  child.stderr!.on('data', (chunk: Buffer) => {
    complaint = (complaint + chunk.toString()).slice(-4000);
    process.stderr.write(chunk);
  });
  child.on('message', (report: TaskReport) => {
    switch (report.type) {
      case 'progress':
        waiting.get(report.id)?.onProgress?.(report.progress as TaskProgress<N>);
        break;
      case 'result':
        settle(report.id, { ok: true, value: report.result as TaskResult<N> });
        break;
      case 'refused':
        settle(report.id, refused(report.message, report.code));
        break;
      case 'fault':
        // the error itself is in the log
        settle(report.id, refused(`something went wrong on our side in ${what}; try it again`, 'fault'));
    }
  });

  const timer =
    maxSeconds === null
      ? null
      : setTimeout(
          () => kill(refused(`${what} took longer than ${Math.round(maxSeconds)} s and was stopped`, 'timeout')),
          maxSeconds * 1000
        );
  const memory =
    maxMemoryMb === null
      ? null
      : setInterval(() => {
          if (residentMb(child) > maxMemoryMb)
            kill(refused(`${what} needs more than ${(maxMemoryMb / 1024).toFixed(0)} GB of memory`, 'memory'));
        }, MEMORY_CHECK_MS);
  memory?.unref();

  const gone = new Promise<void>((resolve) => {
    const end = (error?: Error) => {
      if (ended) return;
      ended = true;
      children().delete(child);
      if (timer) clearTimeout(timer);
      if (memory) clearInterval(memory);
      const outOfMemory = /heap out of memory|allocation failed/i.test(complaint);
      why ??= outOfMemory
        ? refused(`${what} needs more memory than there is`, 'memory')
        : refused(`${what} ended unexpectedly${error ? ` (${error.message})` : ''}; try it again`, 'crashed');
      for (const id of [...waiting.keys()]) settle(id, why);
      resolve();
    };
    // no 'close': it does not come when this side has disconnected
    child.once('exit', () => {
      if (child.stderr!.closed) end();
      else child.stderr!.once('close', () => end());
    });
    child.once('error', end);
  });

  const sendOrder = (order: TaskOrder) => {
    if (child.connected) child.send(order, () => {});
  };
  return {
    ask: (input, onProgress) =>
      new Promise((resolve) => {
        if (ended) return resolve(why!);
        const id = ++lastId;
        waiting.set(id, { resolve, onProgress });
        sendOrder({ type: 'request', id, input });
      }),
    pause: (paused) => sendOrder({ type: 'pause', paused }),
    stop: (mode) => sendOrder({ type: 'stop', mode }),
    kill,
    async close() {
      if (child.connected) child.disconnect();
      await gone;
    },
    get ended() {
      return ended;
    }
  };
}

/** Resident memory of a process, in MB; 0 where the system does not say. */
function residentMb({ pid }: ChildProcess): number {
  try {
    const kilobytes = /^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
    return Number(kilobytes ?? 0) / 1024;
  } catch {
    return 0;
  }
}

/** Tasks that run now: none outlives this process. */
const children = () =>
  singleton('task children', () => {
    const all = new Set<ChildProcess>();
    process.on('exit', () => {
      for (const child of all) child.kill('SIGKILL');
    });
    return all;
  });
