import { describe, expect, it } from 'vitest';
import { createRandom } from '../sampling/random';
import { spreadOver } from './spread';

// a level square of 10 m, and an upright one beside it
const LEVEL = [0, 0, 0, 10, 0, 0, 10, 0, 10, 0, 0, 0, 10, 0, 10, 0, 0, 10];
const UPRIGHT = [20, 0, 0, 30, 0, 0, 30, 10, 0];

describe('places over a surface', () => {
  it('lie on its upper faces, spread more evenly than chance would', () => {
    const places = spreadOver([...LEVEL, ...UPRIGHT], 100, createRandom(3));
    expect(places.length).toBe(100);
    expect(places.every(([x, y, z]) => x >= 0 && x <= 10 && y === 0 && z >= 0 && z <= 10)).toBe(true);
    const nearest = places.map(([x, , z], i) =>
      Math.min(...places.filter((_, j) => j !== i).map(([a, , b]) => Math.hypot(x - a, z - b)))
    );
    // of 100 points at random on 100 m2 the mean nearest distance is 0.5 m (Clark and Evans 1954)
    expect(nearest.reduce((a, b) => a + b) / 100).toBeGreaterThan(0.65);
  });
  it('are the same for the same seed, and none on an upright face', () => {
    expect(spreadOver(LEVEL, 5, createRandom(1))).toEqual(spreadOver(LEVEL, 5, createRandom(1)));
    expect(spreadOver(UPRIGHT, 5, createRandom(1))).toEqual([]);
  });
});
