import { describe, expect, it } from 'vitest';
import { createRandom } from '../sampling/random';
import { evenBackdrop } from './backdrop';
import { CHANNELS } from './film';

const SIZE = 32;
const SAMPLES = 16;
const random = createRandom(8);

/** A tile whose pixels have this share of a backdrop of radiance 5, by so many random samples, and this reflectance. */
function tile(of: (x: number, y: number) => { share: number; reflectance: number; random: boolean }) {
  const data = new Float32Array(SIZE * SIZE * CHANNELS);
  for (let i = 0; i < SIZE * SIZE; i++) {
    const { share, reflectance, random: dice } = of(i % SIZE, Math.floor(i / SIZE));
    let hits = share * SAMPLES;
    if (dice) {
      hits = 0;
      for (let s = 0; s < SAMPLES; s++) hits += random() < share ? 1 : 0;
    }
    data.fill(5 * hits, i * CHANNELS + 6, i * CHANNELS + 9);
    data[i * CHANNELS + 9] = hits;
    data.fill(reflectance * SAMPLES, i * CHANNELS + 10, i * CHANNELS + 13);
  }
  return data;
}
const shareAt = (data: Float32Array, x: number, y: number) => data[(y * SIZE + x) * CHANNELS + 9]! / SAMPLES;

describe('the backdrop of a denoised film', () => {
  it('loses most of its grain behind glass, and its radiance is the same', () => {
    const noisy = tile(() => ({ share: 0.6, reflectance: 1, random: true }));
    const out = noisy.slice();
    evenBackdrop(noisy, out, SIZE, SIZE, SAMPLES);
    const error = (data: Float32Array) =>
      Math.sqrt(
        Array.from({ length: SIZE * SIZE }, (_, i) => (data[i * CHANNELS + 9]! / SAMPLES - 0.6) ** 2).reduce(
          (a, b) => a + b,
          0
        ) /
          (SIZE * SIZE)
      );
    expect(error(noisy) / error(out)).toBeGreaterThan(4);
    for (let i = 0; i < SIZE * SIZE; i++)
      if (out[i * CHANNELS + 9]! > 0) expect(out[i * CHANNELS + 6]! / out[i * CHANNELS + 9]!).toBeCloseTo(5, 4);
  });
  it('keeps the edge of a thing before it', () => {
    // a thing on the left, the surroundings on the right, one column between that is half of each
    const edge = tile((x) =>
      x < 15
        ? { share: 0, reflectance: 0.3, random: false }
        : x > 15
          ? { share: 1, reflectance: 1, random: false }
          : { share: 0.5, reflectance: 0.65, random: false }
    );
    const out = edge.slice();
    evenBackdrop(edge, out, SIZE, SIZE, SAMPLES);
    for (const [x, share] of [
      [14, 0],
      [15, 0.5],
      [16, 1]
    ] as const)
      expect(shareAt(out, x, 10)).toBeCloseTo(share, 3);
  });
});
