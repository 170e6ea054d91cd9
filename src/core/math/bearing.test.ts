import { describe, expect, it } from 'vitest';
import { bearingOf, wrapDegrees } from './bearing';

describe('bearings seen from above', () => {
  it('run counterclockwise from -Z', () => {
    expect([bearingOf([0, 0, -1]), bearingOf([-1, 5, 0]), bearingOf([1, 0, 0])].map((v) => v + 0)).toEqual([
      0, 90, -90
    ]);
    expect(Math.abs(bearingOf([0, 0, 2]))).toBe(180);
  });
  it('come back into one turn', () => {
    expect([-180, 180, 190, -190, 720, -539].map(wrapDegrees)).toEqual([-180, -180, -170, 170, 0, -179]);
  });
});
