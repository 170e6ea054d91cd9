import { describe, expect, it } from 'vitest';
import { guessUnit, isPlausible } from './guess-unit';

describe('the unit that a model was drawn in', () => {
  it('is guessed from its size: what is stated when that can be, else the first that gives a thing people draw', () => {
    expect(guessUnit(7.43, 'm')).toBe('m');
    // an engine of 743 units is no building of 743 m, and a chair of 900 is none of 900 m
    expect(guessUnit(743, 'm')).toBe('mm');
    expect(guessUnit(900, null)).toBe('mm');
    expect(guessUnit(12_000, null)).toBe('mm');
    expect(guessUnit(0.8, null)).toBe('m');
    expect(guessUnit(0, 'm')).toBe('m');
    expect(guessUnit(0, null)).toBe('m');
  });
  it('is plausible between a ring and a building site', () => {
    expect([0.01, 0.02, 320, 600].map((v) => isPlausible(v, 'm'))).toEqual([false, true, true, false]);
    expect(isPlausible(20, 'mm')).toBe(true);
  });
});
