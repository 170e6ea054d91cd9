/**
 * A question to a built module in a process of its own: the job goes there as a message, news and the answer come back
 * as messages.
 */
import { spawn } from 'node:child_process';
import { config } from '../config';

export type Said<T> = ({ ok: true } & T) | { ok: false; message: string };

type Message<T, N> = { news: N } | { said: Said<T> };
/** To a worker at work. */
interface Pause {
  paused: boolean;
}

export interface AskOptions<N> {
  /** What it tells on the way. */
  onNews?: (news: N) => void;
  /** Ends it without an answer. */
  stop?: AbortSignal;
  /** Given what pauses it and lets it go on, where it lets itself be paused; gives back what is called at its end. */
  attend?: (pause: (paused: boolean) => void) => () => void;
}

/** `what`: for the sentence when it breaks off, like "the measurement". */
export function askWorker<T, N = never>(
  name: string,
  job: object,
  longestMs: number,
  what: string,
  { onNews, stop, attend }: AskOptions<N> = {}
): Promise<Said<T>> {
  return new Promise((resolve) => {
    if (stop?.aborted) return resolve({ ok: false, message: `${what} was stopped` });
    const child = spawn(process.execPath, [config.built(`${name}.mjs`)], {
      cwd: config.root,
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      serialization: 'advanced',
      env: { ...config.childEnvironment, SPHAERA_DATA: config.dataDir, SPHAERA_THREADS: String(config.threads) }
    });
    let said: Said<T> = { ok: false, message: `${what} broke off; try it again` };
    const end = (message: string) => {
      said = { ok: false, message };
      child.kill('SIGKILL');
    };
    const limit = setTimeout(() => end(`${what} took too long; try it when nothing else renders`), longestMs);
    const onStop = () => end(`${what} was stopped`);
    stop?.addEventListener('abort', onStop);
    child.on('message', (message: Message<T, N>) => {
      if ('news' in message) onNews?.(message.news);
      else said = message.said;
    });
    child.once('error', (error) => {
      said = { ok: false, message: error.message };
    });
    child.once('close', () => {
      clearTimeout(limit);
      stop?.removeEventListener('abort', onStop);
      leave?.();
      resolve(said);
    });
    child.send(job);
    const leave = attend?.((paused) => {
      if (child.connected) child.send({ paused } satisfies Pause);
    });
  });
}

/**
 * The other end: takes the job, tells what there is on the way, says the answer, or why there is none, and ends. Work
 * that lets itself be paused awaits `mayGoOn` between its pieces.
 */
export function answerOnce<J, T, N = never>(
  answer: (job: J, tell: (news: N) => void, mayGoOn: () => Promise<void>) => Promise<Said<T>>
): void {
  let pause = Promise.resolve();
  let goOn = () => {};
  const onPause = ({ paused }: Pause) => {
    goOn();
    if (paused) pause = new Promise((resolve) => (goOn = resolve));
  };
  process.once('message', (job: J) => {
    process.on('message', onPause);
    void answer(
      job,
      (news) => process.send!({ news }),
      () => pause
    )
      .catch(
        (error: unknown): Said<T> => ({ ok: false, message: error instanceof Error ? error.message : String(error) })
      )
      .then((said) => process.send!({ said }, () => process.exit(0)));
  });
}
