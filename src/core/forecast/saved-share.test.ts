import { describe, expect, it } from 'vitest';
import { type Pair, type PatchCosts, pooled, savedShare, shareError } from './saved-share';

const goal = { samples: 256, grain: 5, min_samples: 64 };
const even = (seconds: number, squaredGrain: number): PatchCosts => ({
  seconds: [seconds, seconds],
  squaredGrain: [squaredGrain, squaredGrain]
});

describe('the share of the time that goes with one thing less', () => {
  it('is that of a sample, as long as equally many are taken', () => {
    // 64 samples are the least that is taken
    expect(savedShare({ whole: even(2, 100), less: even(1.5, 25) }, goal)).toBeCloseTo(0.25);
    expect(savedShare({ whole: even(2, 1e5), less: even(1.5, 1e3) }, { ...goal, grain: null })).toBeCloseTo(0.25);
  });
  it('counts the samples that are spared until it is as clean, up to the most', () => {
    // 100 samples against 50 of which 64 are taken; 400 of which 256 are taken
    expect(savedShare({ whole: even(1, 2500), less: even(1, 1250) }, goal)).toBeCloseTo(0.36);
    expect(savedShare({ whole: even(1, 10_000), less: even(1, 2500) }, goal)).toBeCloseTo(1 - 100 / 256);
    // and only where it makes a difference
    expect(
      savedShare(
        {
          whole: { seconds: [1, 1], squaredGrain: [2500, 2500] },
          less: { seconds: [1, 1], squaredGrain: [2500, 1600] }
        },
        goal
      )
    ).toBeCloseTo(0.18);
  });
  it('is negative where it takes longer', () => {
    expect(savedShare({ whole: even(1, 0), less: even(1.2, 0) }, goal)).toBeCloseTo(-0.2);
  });
});

describe('turns together', () => {
  const turn = (whole: number, less: number): Pair => ({ whole: even(whole, 2500), less: even(less, 2500) });
  it('count the least of the times, for something else may have run, and the mean of the grain', () => {
    const busy = pooled([turn(1, 0.9), turn(1, 2), turn(1.7, 0.9)]);
    expect(savedShare(busy, goal)).toBeCloseTo(0.1);
    const grain = pooled([
      { whole: even(1, 2000), less: even(1, 1000) },
      { whole: even(1, 3000), less: even(1, 2600) }
    ]);
    expect(grain.whole.squaredGrain).toEqual([2500, 2500]);
    expect(grain.less.squaredGrain).toEqual([1800, 1800]);
  });
  it('say how far the share may be off: standard error of their mean', () => {
    expect(shareError([turn(1, 0.9)], goal)).toBe(Number.POSITIVE_INFINITY);
    expect(shareError([turn(1, 0.9), turn(1, 0.9), turn(2, 1.8)], goal)).toBeCloseTo(0);
    // 0.1 and 0.3: deviation 0.1414, of two
    expect(shareError([turn(1, 0.9), turn(1, 0.7)], goal)).toBeCloseTo(0.1);
  });
});
