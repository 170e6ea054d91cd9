/** A question to a built module in a process of its own: the job goes there as a message, news and the answer come back as messages. */
import { spawn } from 'node:child_process';
import { config } from '../config';

export type Said<T> = ({ ok: true } & T) | { ok: false; message: string };

type Message<T, N> = { news: N } | { said: Said<T> };

export interface AskOptions<N> {
  /** What it tells on the way. */
  onNews?: (news: N) => void;
  /** Ends it without an answer. */
  stop?: AbortSignal;
}

/** `what`: for the sentence when it breaks off, like "the measurement". */
export function askWorker<T, N = never>(name: string, job: object, longestMs: number, what: string, { onNews, stop }: AskOptions<N> = {}): Promise<Said<T>> {
  return new Promise((resolve) => {
    if (stop?.aborted) return resolve({ ok: false, message: `${what} was stopped` });
    const child = spawn(process.execPath, [config.built(`${name}.mjs`)], { cwd: config.root, stdio: ['ignore', 'ignore', 'inherit', 'ipc'], serialization: 'advanced', env: { ...config.childEnvironment, SPHAERA_DATA: config.dataDir, SPHAERA_THREADS: String(config.threads) } });
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
      resolve(said);
    });
    child.send(job);
  });
}

/** The other end: takes the job, tells what there is on the way, says the answer, or why there is none, and ends. */
export function answerOnce<J, T, N = never>(answer: (job: J, tell: (news: N) => void) => Promise<Said<T>>): void {
  process.once('message', (job: J) => {
    void answer(job, (news) => process.send!({ news }))
      .catch((error: unknown): Said<T> => ({ ok: false, message: error instanceof Error ? error.message : String(error) }))
      .then((said) => process.send!({ said }, () => process.exit(0)));
  });
}
