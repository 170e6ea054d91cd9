import { describe, expect, it } from 'vitest';
import { lightness } from '../color/lightness';
import { toneCurve } from '../color/tone';
import { createRandom } from '../sampling/random';
import { lookUp, tableOf } from './curve-table';

describe('a curve by table', () => {
  it.each([
    ['tone', toneCurve],
    ['lightness', (y: number) => lightness(Math.min(y, 1))]
  ] as const)('is the curve: %s', (_, curve) => {
    const table = tableOf(curve);
    const random = createRandom(3);
    for (let i = 0; i < 20_000; i++) {
      const x = Math.fround(2 ** (-23 + 39 * random()));
      expect(Math.abs(lookUp(table, x) / curve(x) - 1)).toBeLessThan(3e-6);
    }
  });
  it('goes straight down to 0 and stays what it is beyond its end', () => {
    const table = tableOf((x) => 3 * x);
    expect(lookUp(table, 2 ** -30)).toBe(3 * 2 ** -30);
    expect(lookUp(table, 2 ** -24)).toBe(3 * 2 ** -24);
    expect(lookUp(table, 1.5)).toBe(4.5);
    for (const x of [2 ** 16, 1e9, Number.POSITIVE_INFINITY]) expect(lookUp(table, x)).toBe(3 * 2 ** 16);
    for (const x of [0, -1, Number.NEGATIVE_INFINITY, Number.NaN]) expect(lookUp(table, x)).toBe(0);
  });
});
