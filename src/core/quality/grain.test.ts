import { describe, expect, it } from 'vitest';
import { CHANNELS } from '../film/film';
import { createRandom } from '../sampling/random';
import { displayedLightness, squaredGrain } from './grain';

describe('grain', () => {
  it('is the squared half difference of the lightness that the two halves are displayed with', () => {
    const random = createRandom(7);
    const pixels = 500;
    const white = 120;
    // radiances from deep shadow to the blown out, halves that differ by a hair and by a lot, seven samples: four even,
    // three odd
    const tile = new Float32Array(pixels * CHANNELS);
    let expected = 0;
    for (let i = 0; i < pixels; i++) {
      const of = [0, 1, 2].map(() => white * 10 ** (-4 + 5 * random()));
      const apart = 10 ** (-3 + 3 * random());
      tile.set([...of.map((v) => v * 4), ...of.map((v) => v * 3 * (1 + apart))], i * CHANNELS);
      const half = (at: number, samples: number) =>
        displayedLightness(
          ...([0, 1, 2].map((c) => tile[i * CHANNELS + at + c]! / samples / white) as [number, number, number])
        );
      expected += (half(0, 4) - half(3, 3)) ** 2 / 4;
    }
    expect(Math.abs(squaredGrain(tile, pixels, 7, white) / expected - 1)).toBeLessThan(1e-4);
  });
  it('of halves alike is none', () => {
    const tile = new Float32Array(CHANNELS).fill(0);
    tile.set([3, 2, 1, 3, 2, 1]);
    expect(squaredGrain(tile, 1, 2, 1)).toBe(0);
  });
});
