import { describe, expect, it } from 'vitest';
import { followPart } from './follow-part';

const paths = [
  { from: 'House / Door', to: 'Villa / Door' },
  { from: 'House / Roof / Ridge', to: 'Villa / Roof / Ridge' },
  { from: 'Leg', to: 'Leg (2)' }
];
const there = new Set(['Villa', 'Villa / Door', 'Villa / Roof', 'Villa / Roof / Ridge', 'Leg', 'Leg (2)']);

describe('a posed part in the next revision', () => {
  it('follows its object, and a group what lay within it', () => {
    expect(followPart('House / Door', paths, there)).toBe('Villa / Door');
    expect(followPart('Leg', paths, there)).toBe('Leg (2)');
    expect(followPart('House', paths, there)).toBe('Villa');
    expect(followPart('House / Roof', paths, there)).toBe('Villa / Roof');
  });
  it('stays where it is still there, and keeps its path when it is gone', () => {
    expect(followPart('', paths, there)).toBe('');
    expect(followPart('Villa', paths, there)).toBe('Villa');
    expect(followPart('Garage', paths, there)).toBe('Garage');
  });
});
