import { describe, expect, it } from 'vitest';
import { buildImportanceGrid } from '../lights/captured/importance';
import { passEnds, tilesOf } from '../film/film';
import { buildAliasTable } from './alias-table';
import { invertPixelFilter } from './pixel-filter';
import { createRandom } from './random';

describe('alias table', () => {
  it('draws each index with its probability', () => {
    const weights = [1, 0, 3, 6, 0.5];
    const table = buildAliasTable(weights);
    const share = new Float64Array(weights.length);
    table.threshold.forEach((t, i) => {
      share[i] = share[i]! + t / weights.length;
      share[table.alias[i]!] = share[table.alias[i]!]! + (1 - t) / weights.length;
    });
    weights.forEach((w, i) => {
      expect(share[i]).toBeCloseTo(w / 10.5, 6);
      expect(table.probability[i]).toBeCloseTo(w / 10.5, 6);
    });
  });
  it('is even when nothing weighs', () => expect([...buildAliasTable([0, 0]).probability]).toEqual([0.5, 0.5]));
});

it('the importance grid is positive wherever bilinear filtering shows light', () => {
  const pixels = new Float32Array(64 * 32 * 3);
  pixels.fill(100, (10 * 64 + 20) * 3, (10 * 64 + 20) * 3 + 3);
  const grid = buildImportanceGrid(pixels, 64, 32);
  for (const [dx, dy] of [
    [-1, -1],
    [0, 0],
    [1, 1]
  ] as const)
    expect(grid.probability[(10 + dy) * 64 + 20 + dx]).toBeGreaterThan(0);
});

it('the pixel filter is symmetric, centred, and ends at its radius', () => {
  const f = invertPixelFilter(1.5, 256);
  expect(f[0]).toBeCloseTo(-1.5, 1);
  expect(f[256]).toBeCloseTo(1.5, 1);
  expect(f[128]).toBeCloseTo(0, 3);
  expect(f[64]! + f[192]!).toBeCloseTo(0, 3);
});

it('tiles cover a film once, passes double and end at the limit', () => {
  const tiles = tilesOf(200, 130);
  expect(tiles.reduce((s, t) => s + t.width * t.height, 0)).toBe(200 * 130);
  expect(new Set(tiles.map((t) => t.index)).size).toBe(tiles.length);
  expect(passEnds(96)).toEqual([1, 4, 16, 32, 64, 96]);
  expect(passEnds(5)).toEqual([1, 4, 5]);
  expect(passEnds(1)).toEqual([1]);
});

it('the seeded generator repeats itself and is even', () => {
  const a = createRandom(7);
  const b = createRandom(7);
  let sum = 0;
  for (let i = 0; i < 10_000; i++) {
    const v = a();
    expect(v).toBe(b());
    sum += v;
  }
  expect(sum / 10_000).toBeCloseTo(0.5, 1);
});
