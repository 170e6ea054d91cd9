import { describe, expect, it } from 'vitest';
import { inPercent, rectBetween, rectIsLarge } from './picked-place';

describe('a rectangle drawn on the stage', () => {
  it('is the same whichever corner came first, and ends at the edges of the picture', () => {
    const rect = { x: 0.2, y: 0.1, width: 0.3, height: 0.5 };
    expect(rectBetween([0.2, 0.1], [0.5, 0.6])).toEqual(rect);
    expect(rectBetween([0.5, 0.6], [0.2, 0.1])).toEqual(rect);
    expect(rectBetween([-1, 0.5], [2, 3])).toEqual({ x: 0, y: 0.5, width: 1, height: 0.5 });
  });
  it('is none when its shorter side is under 16 px', () => {
    const rect = { x: 0, y: 0, width: 0.01, height: 0.5 };
    expect([rectIsLarge(rect, 1600, 900), rectIsLarge(rect, 1599, 900)]).toEqual([true, false]);
  });
  it('is placed in percent of the picture', () => {
    expect(inPercent({ x: 0.25, y: 0.5, width: 0.5, height: 0.125 })).toEqual({
      left: '25%',
      top: '50%',
      width: '50%',
      height: '12.5%'
    });
  });
});
