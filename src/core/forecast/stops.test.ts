import { describe, expect, it } from 'vitest';
import { grainAfter, stopClauses } from './stops';

const said = (...args: Parameters<typeof stopClauses>) =>
  stopClauses(...args).map((c) => [c.by, c.text.replaceAll('\u00a0', ' ')]);

describe('what ends a render', () => {
  it('is said in the order grain, time, samples, and what is not set is not said', () => {
    expect(said({ grain: 2.5, min_samples: 16, samples: 1024, minutes: 25 })).toEqual([
      ['grain', 'its raw grain is under 2.5 L*'],
      ['time', '25 min have passed'],
      ['samples', 'every pixel has 1,024 samples']
    ]);
    expect(said({ grain: 1, min_samples: 256, samples: 1024, minutes: null })[0]).toEqual([
      'grain',
      'its raw grain is under 1 L* after 256 samples or more'
    ]);
    expect(said({ grain: null, min_samples: 32, samples: 64, minutes: null })).toEqual([
      ['samples', 'every pixel has 64 samples']
    ]);
    expect(said({ grain: null, min_samples: 32, samples: 64, minutes: 90 })[0]).toEqual(['time', '1.5 h have passed']);
  });
  it('leaves half the grain with four times the samples', () => expect(grainAfter(3, 4)).toBe(1.5));
});
