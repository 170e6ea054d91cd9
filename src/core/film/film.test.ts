import { describe, expect, it } from 'vitest';
import { mixDenoised } from './denoised';
import { CHANNELS } from './film';

/** Sums of `samples` samples of one pixel: radiance, what of it is backdrop, the backdrop's share. */
const pixel = (samples: number, radiance: number, backdrop: number, share: number) => {
  const tile = new Float32Array(CHANNELS);
  tile.fill((radiance * samples) / 2, 0, 6);
  tile.fill(backdrop * samples, 6, 9);
  tile[9] = share * samples;
  return tile;
};
const shareOf = (tile: Float32Array, samples: number) => tile[9]! / samples;

const ONE = { width: 1, height: 1 };

describe('a tile mixed with what a filter made of it', () => {
  it('takes the filter’s radiance by its amount', () => {
    const mixed = mixDenoised(pixel(8, 2, 0, 0), ONE, 8, Float32Array.of(4, 4, 4), 0.5);
    expect((mixed[0]! + mixed[3]!) / 8).toBeCloseTo(3, 6);
  });
  it('denoises the shadow on a ground with the picture, where nothing else is seen', () => {
    // a ground that shows 5 without its shadow: by chance 2 was sampled, the filter says 2.5
    const mixed = mixDenoised(pixel(16, 2, 2, 0.4), ONE, 16, Float32Array.of(2.5, 2.5, 2.5), 1);
    expect(shareOf(mixed, 16)).toBeCloseTo(0.5, 6);
    expect(mixed[6]! / 16).toBeCloseTo(2.5, 6);
  });
  it('leaves the share of plain surroundings and of edges as it was', () => {
    expect(shareOf(mixDenoised(pixel(16, 2, 2, 1), ONE, 16, Float32Array.of(1.9, 1.9, 1.9), 1), 16)).toBe(1);
    expect(shareOf(mixDenoised(pixel(16, 2, 1, 0.4), ONE, 16, Float32Array.of(2.5, 2.5, 2.5), 1), 16)).toBeCloseTo(
      0.4,
      6
    );
  });
});
