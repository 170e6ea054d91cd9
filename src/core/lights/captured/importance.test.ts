import { describe, expect, it } from 'vitest';
import { luminanceAt } from '../../color/spaces';
import { buildImportanceGrid } from './importance';

const WIDTH = 64;
const HEIGHT = 32;
const painted = (at: (x: number, y: number) => number): Float32Array =>
  Float32Array.from(
    { length: WIDTH * HEIGHT * 3 },
    (_, i) => at(Math.floor(i / 3) % WIDTH, Math.floor(i / 3 / WIDTH)) * (1 + 0.1 * (i % 3))
  );
const bandOf = (row: number, rows: number) => Math.cos((Math.PI * row) / rows) - Math.cos((Math.PI * (row + 1)) / rows);
/** Luminance summed over the sphere. */
const light = (pixels: Float32Array, width: number, height: number) => {
  let sum = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      sum += (luminanceAt(pixels, (y * width + x) * 3) * bandOf(y, height) * 2 * Math.PI) / width;
  return sum;
};

describe('the means of an importance grid', () => {
  it('hold all the light of an image that is even in every cell', () => {
    const pixels = painted(
      (x, y) => 2 + Math.sin((2 * Math.PI * x) / WIDTH) * Math.sin((Math.PI * (y + 0.5)) / HEIGHT)
    );
    const { mean, width, height } = buildImportanceGrid(pixels, WIDTH, HEIGHT, 16);
    expect([width, height]).toEqual([16, 8]);
    expect(Math.min(...mean)).toBeGreaterThan(0.9);
    expect(light(mean, width, height) / light(pixels, WIDTH, HEIGHT)).toBeCloseTo(1, 6);
  });
  it('are missing where something in the cell or at its border stands out, and nowhere else', () => {
    const { mean } = buildImportanceGrid(
      painted((x, y) => (x === 20 && y === 10 ? 3 : 1)),
      WIDTH,
      HEIGHT,
      16
    );
    const missing = Array.from({ length: 16 * 8 }, (_, i) => i).filter((i) => mean[i * 3]! < 0);
    // the texel's own cell and the one that it borders on
    expect(missing).toEqual([2 * 16 + 4, 2 * 16 + 5]);
  });
  it('are missing everywhere when cells are no whole texels', () => {
    expect(
      Math.max(
        ...buildImportanceGrid(
          painted(() => 1),
          WIDTH,
          HEIGHT,
          24
        ).mean
      )
    ).toBe(-1);
  });
});
