/** A question to a built module in a process of its own: the job goes there as a message, and one message comes back. */
import { spawn } from 'node:child_process';
import { config } from '../config';

export type Said<T> = ({ ok: true } & T) | { ok: false; message: string };

/** `what`: for the sentence when it breaks off, like "the measurement". */
export function askWorker<T>(name: string, job: object, longestMs: number, what: string): Promise<Said<T>> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [config.built(`${name}.mjs`)], { cwd: config.root, stdio: ['ignore', 'ignore', 'inherit', 'ipc'], serialization: 'advanced', env: { ...config.childEnvironment, SPHAERA_DATA: config.dataDir, SPHAERA_THREADS: String(config.threads) } });
    let said: Said<T> = { ok: false, message: `${what} broke off; try it again` };
    const limit = setTimeout(() => {
      said = { ok: false, message: `${what} took too long; try it when nothing else renders` };
      child.kill('SIGKILL');
    }, longestMs);
    child.once('message', (message: Said<T>) => {
      said = message;
    });
    child.once('error', (error) => {
      said = { ok: false, message: error.message };
    });
    child.once('close', () => {
      clearTimeout(limit);
      resolve(said);
    });
    child.send(job);
  });
}

/** The other end: takes the job, says the answer, or why there is none, and ends. */
export function answerOnce<J, T>(answer: (job: J) => Promise<Said<T>>): void {
  process.once('message', (job: J) => {
    void answer(job)
      .catch((error: unknown): Said<T> => ({ ok: false, message: error instanceof Error ? error.message : String(error) }))
      .then((said) => process.send!(said, () => process.exit(0)));
  });
}
