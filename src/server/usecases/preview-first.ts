/**
 * What nobody waits for stands still while the preview takes its first look: the scheduler does not tell a browser's
 * threads from a measurement's.
 */
import { singleton } from '../jobs/singleton';

/** From a preview's question to where its first look is there, and some refinement. */
const FIRST_MS = 1500;

interface Waiting {
  waiting: Set<(paused: boolean) => void>;
  timer: ReturnType<typeof setTimeout> | undefined;
}
const state = () => singleton('preview first', (): Waiting => ({ waiting: new Set(), timer: undefined }));

/** A preview is wanted now. */
export function previewComesFirst(): void {
  const own = state();
  if (own.timer === undefined) for (const pause of own.waiting) pause(true);
  clearTimeout(own.timer);
  own.timer = setTimeout(() => {
    own.timer = undefined;
    for (const pause of own.waiting) pause(false);
  }, FIRST_MS);
  own.timer.unref();
}

/** Has `pause` called for work that is to give way, until what is given back is called. */
export function giveWay(pause: (paused: boolean) => void): () => void {
  const own = state();
  own.waiting.add(pause);
  if (own.timer !== undefined) pause(true);
  return () => own.waiting.delete(pause);
}
