import { describe, expect, it } from 'vitest';
import { DENOISE_START_S, type ForecastOf, forecast, type Machine, type Probe } from './forecast';
import { PATCH_PX, probePatches } from './patches';

const flat = (longSide_px: number, secondsPerSample: number, squared: number[]) => ({
  longSide_px,
  secondsPerSample,
  squaredGrain: squared
});
const probe: Probe = {
  setupSeconds: 3,
  at: [flat(500, 10e-6, [64, 640, 6400]), flat(2500, 8e-6, [64, 640, 6400])],
  memoryBytes: 4e8,
  layers: 0
};
const machine: Machine = { threads: 2, denoiseSecondsPerMegapixel: 4, ratios: [] };
const of: ForecastOf = {
  width_px: 500,
  height_px: 400,
  samples: 100,
  grain: null,
  min_samples: 32,
  minutes: null,
  denoised: false
};

describe('a forecast', () => {
  it('of fixed samples is pixels times samples times the time of one, over the threads', () => {
    const { seconds, samples, endsBy, diskBytes } = forecast(probe, machine, of);
    expect(seconds).toBeCloseTo(3 + (500 * 400 * 100 * 10e-6) / (2 * 0.95), 6);
    expect([samples, endsBy]).toEqual([100, 'samples']);
    expect(diskBytes).toBe(500 * 400 * 128);
  });
  it('grows with the pixels: doubling both sides takes four times as long, at the time of a sample there', () => {
    const render = (k: number) =>
      forecast(probe, machine, { ...of, width_px: 500 * k, height_px: 400 * k }).seconds - 3;
    const along = Math.log(2) / Math.log(5);
    expect(render(2) / render(1)).toBeCloseTo((4 * (10 - 2 * along)) / 10, 6);
  });
  it('stops each kind of place at its own doubling', () => {
    // 64 / 32 = 2, 640 / 512 = 1.25 and 6400 / 1024 above: squared grain 2 is met at 32, at 512, and never
    const { samples, endsBy } = forecast(probe, machine, { ...of, samples: 1024, grain: Math.SQRT2 });
    expect(samples).toBeCloseTo((32 + 512 + 1024) / 3, 6);
    expect(endsBy).toBe('grain');
    // with at least 256 samples the first kind goes on to them
    expect(forecast(probe, machine, { ...of, samples: 1024, grain: Math.SQRT2, min_samples: 256 }).samples).toBeCloseTo(
      (256 + 512 + 1024) / 3,
      6
    );
  });
  it('says the raw grain that is left', () => {
    expect(forecast(probe, machine, { ...of, samples: 64 }).grain).toBeCloseTo(
      Math.sqrt((64 + 640 + 6400) / 3 / 64),
      6
    );
  });
  it('ends by the clock when that comes first, with fewer samples and more grain', () => {
    const long = forecast(probe, machine, { ...of, samples: 4096 });
    const short = forecast(probe, machine, { ...of, samples: 4096, minutes: 1 });
    expect(short.endsBy).toBe('time');
    expect(short.seconds).toBeCloseTo(63, 6);
    expect(short.samples).toBeLessThan(long.samples);
    expect(short.grain).toBeGreaterThan(long.grain);
  });
  it('counts the filter: its time by the pixel, a seventh for first samples, and its memory by the piece where that is more', () => {
    const denoised = (what: Partial<ForecastOf>) => {
      const [with_, without] = [true, false].map((denoised) => forecast(probe, machine, { ...of, ...what, denoised }));
      return { seconds: with_!.seconds - without!.seconds, bytes: with_!.memoryBytes, before: without!.memoryBytes };
    };
    expect(denoised({}).seconds).toBeCloseTo(DENOISE_START_S + 4 * 0.2, 6);
    expect(denoised({ samples: 4 }).seconds - DENOISE_START_S).toBeLessThan((4 * 0.2) / 4);
    expect(denoised({}).before).toBe(4e8);
    const [small, screen, sheet] = [
      denoised({}),
      denoised({ width_px: 1920, height_px: 1080 }),
      denoised({ width_px: 20_000, height_px: 20_000 })
    ];
    expect(small.bytes).toBeGreaterThan(4e8);
    expect(screen.bytes).toBeGreaterThan(2 * small.bytes);
    expect(screen.bytes).toBeCloseTo(1.6e9, -8); // as it was measured
    // no piece is larger than a screen's
    expect(sheet.bytes).toBe(screen.bytes);
  });
  it('learns from the proofs of the project, and is surer with them', () => {
    const taught = forecast(probe, { ...machine, ratios: [1.2, 1.25, 1.22, 1.18] }, of);
    expect((taught.seconds - 3) / (forecast(probe, machine, of).seconds - 3)).toBeCloseTo(1.21, 6);
    expect(taught.high / taught.low).toBeLessThan(forecast(probe, machine, of).high / forecast(probe, machine, of).low);
  });
});

describe('the patches of a probe', () => {
  it.each([
    [2560, 1440],
    [512, 724],
    [30, 20],
    [9, 4]
  ])('lie apart from each other within %i x %i px, the same each time', (width, height) => {
    const patches = probePatches(width, height);
    expect(patches).toEqual(probePatches(width, height));
    expect(patches.length).toBeLessThan(60);
    for (const [i, p] of patches.entries()) {
      expect(p.x >= 0 && p.y >= 0 && p.x + p.width <= width && p.y + p.height <= height).toBe(true);
      for (const q of patches.slice(i + 1))
        expect(p.x + p.width <= q.x || q.x + q.width <= p.x || p.y + p.height <= q.y || q.y + q.height <= p.y).toBe(
          true
        );
    }
  });
  it('are some fifty of 12 px in a picture of any use', () => {
    const patches = probePatches(1600, 1000);
    expect(patches.length).toBeGreaterThan(40);
    expect(patches.every((p) => p.width === PATCH_PX && p.height === PATCH_PX)).toBe(true);
  });
});
