import { describe, expect, it } from 'vitest';
import { CHANNELS } from '../film/film';
import { createRandom } from '../sampling/random';
import { changeBetween, lightnessesOf } from './change';

const patches = Array.from({ length: 48 }, (_, index) => ({
  index,
  x: (index % 8) * 20,
  y: Math.floor(index / 8) * 20,
  width: 12,
  height: 12
}));
const size = { width: 160, height: 120 };
const WHITE = 100;
const SAMPLES = 8;

/** Patches of a radiance each, every half with grain of its own. */
function shot(seed: number, grain: number, radiance: (patch: number) => number) {
  const random = createRandom(seed);
  const films = patches.map((patch) => {
    const data = new Float32Array(patch.width * patch.height * CHANNELS);
    for (let p = 0; p < data.length; p += CHANNELS) {
      for (const half of [0, 3]) {
        const value = radiance(patch.index) * (SAMPLES / 2) * (1 + grain * (2 * random() - 1));
        data.fill(value, p + half, p + half + 3);
      }
    }
    return data;
  });
  return lightnessesOf(films, patches, SAMPLES, WHITE);
}

describe('what changes between two renders', () => {
  const even = () => 30;
  it('is nothing where grain alone differs', () => {
    const { changes } = changeBetween(shot(1, 0.4, even), shot(2, 0.4, even), patches, size);
    // each pixel differs by some 7 L*; what is left falls with the root of the root of the pixels
    expect(changes).toBeLessThan(0.8);
  });
  it('is found through grain, with its size and its place', () => {
    const other = (patch: number) => (patch === 10 ? 45 : 32);
    const clean = changeBetween(shot(1, 0, even), shot(2, 0, other), patches, size);
    const grainy = changeBetween(shot(1, 0.3, even), shot(2, 0.3, other), patches, size);
    expect(clean.changes).toBeGreaterThan(1);
    expect(Math.abs(grainy.changes / clean.changes - 1)).toBeLessThan(0.15);
    for (const { at } of [clean, grainy]) expect(at).toEqual({ x: (40 + 6) / 160, y: (20 + 6) / 120 });
  });
});
