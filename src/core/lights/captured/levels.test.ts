import { describe, expect, it } from 'vitest';
import { coarsest, imageLevels, levelCount, valuesWithLevels } from './levels';

const imageOf = (width: number, at: (x: number, y: number) => number) => {
  const height = width / 2;
  const pixels = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) pixels.fill(at(x, y), (y * width + x) * 3, (y * width + x) * 3 + 3);
  return { width, height, pixels };
};

describe('coarser copies of a large image', () => {
  it('halve it while texels stay whole and no copy falls below 2,048 px', () => {
    expect([2048, 4096, 8192, 8000, 4002, 5000].map((width) => levelCount(width, width / 2))).toEqual([
      0, 1, 2, 1, 0, 1
    ]);
    expect(valuesWithLevels(8192, 4096)).toBe((8192 * 4096 + 4096 * 2048 + 2048 * 1024) * 3);
  });
  it('hold the mean of what they stand for, and are made once', () => {
    const image = imageOf(4096, (x, y) => (x + y) % 2);
    const levels = imageLevels(image);
    expect(levels.map((l) => [l.width, l.height])).toEqual([[2048, 1024]]);
    expect(Math.abs(levels[0]!.pixels[3 * 1_000_000]! - 0.5)).toBeLessThan(1e-4);
    expect(imageLevels({ ...image })).toBe(levels);
    expect(coarsest(image)).toBe(levels[0]);
  });
  it('are none for a small one, which light is sampled from as it is', () => {
    const image = imageOf(512, (x) => x);
    expect(coarsest(image)).toBe(image);
  });
});
