import { describe, expect, it } from 'vitest';
import { aheadOf, untilFinished, type Work } from './ahead';
import { DENOISE_START_S, type Machine } from './forecast';

const machine: Machine = { threads: 2, denoiseSecondsPerMegapixel: 10, ratios: [] };
const work = (part: Partial<Work>): Work => ({
  secondsLeft: null,
  forecastSeconds: null,
  pixels: 1e6,
  samples: 256,
  denoised: false,
  ...part
});

describe('what a new render waits for', () => {
  it('is nothing in an empty queue', () => {
    expect(aheadOf([], machine)).toEqual({ proofs: 0, seconds: 0, unknown: 0 });
  });

  it('is what is left of the running one and the forecasts of those that wait', () => {
    const queue = [work({ secondsLeft: 60 }), work({ forecastSeconds: 100 }), work({ forecastSeconds: 30 })];
    expect(aheadOf(queue, machine)).toEqual({ proofs: 3, seconds: 190, unknown: 0 });
  });

  it('counts the denoising that follows the samples', () => {
    expect(untilFinished(8, work({ denoised: true }), machine)).toBeCloseTo(8 + DENOISE_START_S + 10);
    expect(untilFinished(8, work({ denoised: false }), machine)).toBe(8);
  });

  it('says of how many it does not know', () => {
    expect(aheadOf([work({}), work({ secondsLeft: 5 })], machine)).toEqual({ proofs: 2, seconds: 5, unknown: 1 });
  });
});
