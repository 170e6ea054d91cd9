/** What a new render waits for: the work that is before it in the queue. */
import { denoiseSeconds, type Machine } from './forecast';

export interface Ahead {
  /** How many proofs render or wait. */
  proofs: number;
  /** Until all of them are done, as far as it is known. */
  seconds: number;
  /** How many of them have no forecast, and are not in `seconds`. */
  unknown: number;
}

export interface Work {
  /** Of one that runs: until its samples are done; null before it is known, and for one that waits. */
  secondsLeft: number | null;
  /** From its start; null when it was not forecast. */
  forecastSeconds: number | null;
  pixels: number;
  samples: number;
  /** Whether a denoising follows its samples. */
  denoised: boolean;
}

/** Until a running proof is finished, its denoising with it. */
export const untilFinished = (
  secondsLeft: number,
  work: Pick<Work, 'pixels' | 'samples' | 'denoised'>,
  machine: Machine
): number => secondsLeft + (work.denoised ? denoiseSeconds(machine, work.pixels, work.samples) : 0);

export function aheadOf(works: readonly Work[], machine: Machine): Ahead {
  let seconds = 0;
  let unknown = 0;
  for (const work of works) {
    const known = work.secondsLeft === null ? work.forecastSeconds : untilFinished(work.secondsLeft, work, machine);
    if (known === null) unknown++;
    else seconds += known;
  }
  return { proofs: works.length, seconds, unknown };
}
