/**
 * What share of a picture's time goes with one thing less: the time of the same patches with it and without, each to
 * the grain that the brief asks for. A sample without it may be quicker, or leave less grain, or both; a patch takes as
 * many as bring it below the grain, between the least and the most that the brief names, and squared grain falls with
 * the samples. Patches are rendered in turns of independent samples: how far the turns lie apart is how sure the share
 * is. Limit: samples are counted continuously here, while a render decides at doublings; both sides alike, so it
 * cancels over many tiles.
 */
import { FIRST_DECISION } from '../film/film';
import type { ForecastOf } from './forecast';

/** When a picture stops. */
export type Goal = Pick<ForecastOf, 'samples' | 'grain' | 'min_samples'>;

/** Of each patch. */
export interface PatchCosts {
  /** That a sample takes. */
  seconds: number[];
  /** That one sample a pixel would leave, L* squared. */
  squaredGrain: number[];
}

/** Of a picture as it is, and of it with one thing less. */
export type Both<T> = { whole: T; less: T };
export const both = <T>(of: (side: keyof Both<T>) => T): Both<T> => ({ whole: of('whole'), less: of('less') });

/** The same patches. */
export type Pair = Both<PatchCosts>;

/** 0 to 1; below 0 when it takes longer without. */
export const savedShare = ({ whole, less }: Pair, goal: Goal): number =>
  1 - secondsTo(less, goal) / secondsTo(whole, goal);

const secondsTo = ({ seconds, squaredGrain }: PatchCosts, goal: Goal): number =>
  seconds.reduce((sum, s, i) => sum + s * samplesTo(squaredGrain[i]!, goal), 0);

function samplesTo(squaredGrain: number, { samples, grain, min_samples }: Goal): number {
  if (grain === null) return samples;
  return Math.min(samples, Math.max(min_samples, FIRST_DECISION, squaredGrain / (grain * grain)));
}

/**
 * All turns as one. Of a patch's times the least counts: what else runs on the machine only ever adds. A bench of two
 * busy threads beside it moved shares that are nought by 2.5 hundredths this way, by 5 in the mean of the times; alone
 * 0.5 against 2 (eight rounds of a room, six times each).
 */
export const pooled = (turns: readonly Pair[]): Pair => both((side) => pool(turns.map((t) => t[side])));

function pool(turns: readonly PatchCosts[]): PatchCosts {
  const patches = turns[0]!.seconds.map((_, i) => i);
  return {
    seconds: patches.map((i) => Math.min(...turns.map((t) => t.seconds[i]!))),
    squaredGrain: patches.map((i) => turns.reduce((sum, t) => sum + t.squaredGrain[i]!, 0) / turns.length)
  };
}

/** Standard error of the share, from turns that are independent; a turn alone has none. */
export function shareError(turns: readonly Pair[], goal: Goal): number {
  if (turns.length < 2) return Number.POSITIVE_INFINITY;
  const shares = turns.map((t) => savedShare(t, goal));
  const mean = shares.reduce((a, b) => a + b) / shares.length;
  return Math.sqrt(shares.reduce((sum, s) => sum + (s - mean) ** 2, 0) / (shares.length - 1) / shares.length);
}
