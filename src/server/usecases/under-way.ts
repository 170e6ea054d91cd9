/**
 * What is asked for again while it is under way is made once: all who asked hear how far it is and get the same result. It
 * is stopped when all of them have gone.
 */
import { singleton } from '../jobs/singleton';

/** One who asked. */
export interface Asker<P> {
  onProgress?: ((progress: P) => void) | undefined;
  /** Of one who may go before the end; who has none stays. */
  signal?: AbortSignal | undefined;
}

export interface Making<P> {
  report: (progress: P) => void;
  /** Aborted when nobody waits for it any more. */
  signal: AbortSignal;
}

interface UnderWay<T, P> {
  made: Promise<T>;
  listeners: Set<(progress: P) => void>;
  waiting: number;
  stop: AbortController;
}

export function underWay<T, P = never>(
  what: string,
  key: string,
  make: (making: Making<P>) => Promise<T>,
  { onProgress, signal }: Asker<P> = {}
): Promise<T> {
  const all = singleton(`under way: ${what}`, () => new Map<string, UnderWay<T, P>>());
  const found = all.get(key);
  // one that is being stopped is not what a new asker wants
  const one = found && !found.stop.signal.aborted ? found : begin(all, key, make);
  one.waiting++;
  if (onProgress) one.listeners.add(onProgress);
  const leave = () => {
    if (onProgress) one.listeners.delete(onProgress);
    if (--one.waiting === 0) one.stop.abort();
  };
  if (signal?.aborted) leave();
  else signal?.addEventListener('abort', leave, { once: true });
  return one.made.finally(() => signal?.removeEventListener('abort', leave));
}

function begin<T, P>(
  all: Map<string, UnderWay<T, P>>,
  key: string,
  make: (making: Making<P>) => Promise<T>
): UnderWay<T, P> {
  const listeners = new Set<(progress: P) => void>();
  const stop = new AbortController();
  const report = (progress: P) => {
    for (const listener of listeners) listener(progress);
  };
  const one: UnderWay<T, P> = { listeners, waiting: 0, stop, made: make({ report, signal: stop.signal }) };
  one.made = one.made.finally(() => {
    if (all.get(key) === one) all.delete(key);
  });
  all.set(key, one);
  return one;
}
