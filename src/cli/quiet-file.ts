/** Waits for a file to be another one than before, and for whoever writes it to be done. */
import { stat } from 'node:fs/promises';
import { setTimeout as sleep } from 'node:timers/promises';

const LOOK_MS = 200;

export interface QuietOptions {
  /** What it resolved to last, or what is not waited for; null at first. */
  before: string | null;
  /** After so long without a change it is taken for whole. */
  quiet_ms: number;
  signal: AbortSignal;
}

/** Size and time of a file as it is; empty when it is not there. */
export const stateOf = (path: string): Promise<string> =>
  stat(path).then(
    ({ size, mtimeMs }) => `${size} ${mtimeMs}`,
    () => ''
  );

/** Size and time of the file once it rests; null when it was told to end. */
export async function untilQuiet(path: string, { before, quiet_ms, signal }: QuietOptions): Promise<string | null> {
  let [seen, since] = ['', 0];
  while (!signal.aborted) {
    const now = await stateOf(path);
    if (now !== seen) [seen, since] = [now, Date.now()];
    else if (now !== '' && now !== before && Date.now() - since >= quiet_ms) return now;
    await sleep(LOOK_MS, undefined, { signal }).catch(() => {});
  }
  return null;
}
