import { describe, expect, it } from 'vitest';
import { grainText, inWords } from './amounts';

describe('grainText', () => {
  it('says how the grain looks beside its number', () => {
    expect([0, 0.3, 1.4, 4, 12].map(grainText)).toEqual([
      '0.0, none',
      '0.3, not visible',
      '1.4, slight',
      '4.0, visible',
      '12.0, strong'
    ]);
  });
});

describe('inWords', () => {
  it('writes whole numbers up to nine as words and any other as figures', () => {
    expect([0, 9, 10, 214].map(inWords)).toEqual(['no', 'nine', '10', '214']);
  });
});
