import { describe, expect, it } from 'vitest';
import { numberFault, numberText } from './number-field';

const range = { min: 1, max: 30_000, unit: 'px' };

describe('a number field', () => {
  it.each([
    ['12', null],
    ['0,5', 'Enter a number from 1 to 30,000 px.'],
    ['12,5', null],
    ['abc', '“abc” is not a number. Enter one from 1 to 30,000 px.'],
    ['1.234,5', '“1.234,5” is not a number. Enter one from 1 to 30,000 px.'],
    ['1e9', 'Enter a number from 1 to 30,000 px.'],
    ['-5', 'Enter a number from 1 to 30,000 px.'],
    [' ', 'Enter a number from 1 to 30,000 px.']
  ])('says of “%s”: %s', (text, fault) => expect(numberFault(text, range)).toBe(fault));

  it('may be empty where that has a meaning', () => {
    expect(numberFault('', { ...range, none: 'all' })).toBeNull();
  });

  it.each([
    [36, 0, '36'],
    [36.5, 0, '36.5'],
    [0.5, 0, '0.5'],
    [1.234, 2, '1.23'],
    [1.2, 2, '1.20'],
    [1 / 3, 1, '0.3'],
    [23.622, 2, '23.62'],
    [-0.001, 0, '0']
  ])('shows %s with %s decimals as %s', (value, digits, text) => expect(numberText(value, digits)).toBe(text));
});
