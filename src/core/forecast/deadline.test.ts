import { describe, expect, it } from 'vitest';
import { givesUp, offersWithin, secondsUntil } from './deadline';
import { BRIEF_DEFAULTS, type Brief } from '../brief/brief';
import { type ForecastOf, forecast, type Probe } from './forecast';

const flat = (longSide_px: number) => ({ longSide_px, secondsPerSample: 20e-6, squaredGrain: [100, 400, 900] });
const probe: Probe = { setupSeconds: 2, at: [flat(500), flat(2500)], memoryBytes: 1, layers: 0 };
const of = (what: ForecastOf) => forecast(probe, { threads: 2, denoiseSecondsPerMegapixel: 4, ratios: [] }, what);
const brief: Brief = {
  ...BRIEF_DEFAULTS,
  size: { paper: 'A3', orientation: 'landscape', ppi: 200 },
  finish: { ...BRIEF_DEFAULTS.finish, denoise: 1 }
};

describe('what can be had by a time', () => {
  it('is never later than that, even by the later end of its range', () => {
    for (const seconds of [5, 20, 60, 300, 3600, 1e6])
      for (const offer of offersWithin(seconds, brief, of)) expect(offer.forecast.high).toBeLessThanOrEqual(seconds);
  });
  it('is everything with time enough, and nothing without any', () => {
    expect(offersWithin(1e7, brief, of)).toMatchObject([{ step: 'exhibit', scale: 1 }]);
    expect(offersWithin(1, brief, of)).toEqual([]);
  });
  it('offers no smaller picture that is no better', () => {
    const offers = offersWithin(900, brief, of);
    expect(offers.length).toBeGreaterThan(1);
    for (const [i, a] of offers.entries())
      for (const b of offers.slice(i + 1)) expect(a.scale !== b.scale && a.step !== b.step).toBe(true);
  });
  it('counts the bleed', () => {
    const [plain] = offersWithin(1e7, brief, of);
    const [bled] = offersWithin(1e7, { ...brief, bleed_mm: 20 }, of);
    expect(bled!.forecast.renderSeconds / plain!.forecast.renderSeconds).toBeCloseTo((460 * 337) / (420 * 297), 2);
    expect([bled!.width_px, bled!.height_px]).toEqual([3307, 2339]);
  });
  it('says what is given up', () => {
    const [best] = offersWithin(1e7, brief, of);
    expect(givesUp(best!, 200)).toBe('gives up nothing');
    expect(givesUp({ ...best!, scale: 0.5 }, 200).replaceAll('\u00a0', ' ')).toBe('100 instead of 200 ppi');
    expect(givesUp({ ...best!, scale: 0.5, step: 'glance' }, null)).toMatch(
      /^50.% of each side, grain before denoising/
    );
  });
});

describe('a deadline', () => {
  const now = new Date(2026, 10, 26, 15, 30);
  it.each([
    ['17:00', 5400],
    ['by 17.00', 5400],
    ['15:30', 86_400],
    ['in 10 minutes', 600],
    ['10 min', 600],
    ['1:30 h', 5400],
    ['2h', 7200],
    ['45 s', 45]
  ])('"%s" is %i s away at half past three', (text, seconds) => expect(secondsUntil(text, now)).toBe(seconds));
  it.each(['', 'soon', '25:00', '10', '-5 min', '0 min'])('"%s" is none', (text) =>
    expect(secondsUntil(text, now)).toBeNull()
  );
});
