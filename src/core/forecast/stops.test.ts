import { describe, expect, it } from 'vitest';
import { grainAfter, stopClauses } from './stops';

const said = (...args: Parameters<typeof stopClauses>) =>
  stopClauses(...args).map((c) => [c.by, c.text.replaceAll('\u00a0', ' ')]);

describe('what ends a render', () => {
  it('is said in the order grain, time, samples, and what is not set is not said', () => {
    expect(said({ grain: 2.5, min_samples: 16, samples: 1024, minutes: 25 })).toEqual([
      ['grain', 'when grain before denoising is below 2.5'],
      ['time', 'after 25 min'],
      ['samples', 'at 1,024 samples per pixel']
    ]);
    expect(said({ grain: 1, min_samples: 256, samples: 1024, minutes: null })[0]).toEqual([
      'grain',
      'when grain before denoising is below 1 after at least 256 samples'
    ]);
    expect(said({ grain: null, min_samples: 32, samples: 64, minutes: null })).toEqual([
      ['samples', 'at 64 samples per pixel']
    ]);
    expect(said({ grain: null, min_samples: 32, samples: 64, minutes: 90 })[0]).toEqual(['time', 'after 1.5 h']);
  });
  it('leaves half the grain with four times the samples', () => expect(grainAfter(3, 4)).toBe(1.5));
});
