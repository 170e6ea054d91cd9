import { describe, expect, it } from 'vitest';
import { TILE_PX, tilesOf } from '../../film/film';
import { fromCurve, InputScale, toCurve } from './curve';
import { ALIGN_PX } from './filter';
import { cropPlanes, grown, mirrored, piecesOf } from './pieces';

describe('the curve', () => {
  it('goes from 0 to 1 over the range of half floats, rises, and comes back', () => {
    expect(toCurve(0)).toBe(0);
    expect(toCurve(-3)).toBe(0);
    expect(toCurve(65504)).toBeCloseTo(1, 12);
    expect(toCurve(1e9)).toBeCloseTo(1, 12);
    let last = 0;
    for (let e = -7; e <= 4.8; e += 0.01) {
      const value = 10 ** e;
      const curved = toCurve(value);
      expect(curved).toBeGreaterThan(last);
      last = curved;
      // the three pieces of the curve meet within their constants' nine digits
      expect(fromCurve(curved) / value).toBeCloseTo(1, 4);
    }
  });
});

describe('the input scale', () => {
  it('makes the log average of blocks middle grey, and black blocks say nothing', () => {
    const scale = new InputScale();
    scale.add(
      32,
      32,
      Float32Array.from({ length: 32 * 32 }, (_, i) => (i % 32 < 16 ? 4 : 16))
    );
    expect(scale.value).toBeCloseTo(0.18 / 8, 12);
    scale.add(16, 16, new Float32Array(16 * 16));
    expect(scale.value).toBeCloseTo(0.18 / 8, 12);
  });
  it('does not drift with noise as an average of pixels would', () => {
    const noisy = new InputScale();
    let state = 1;
    const random = () => {
      state = (state * 48271) % 2147483647;
      return state / 2147483647;
    };
    noisy.add(
      64,
      64,
      Float32Array.from({ length: 64 * 64 }, () => 10 * random())
    ); // mean 5; the log mean of its pixels would be 3.7
    expect(0.18 / noisy.value).toBeCloseTo(5, 0);
  });
  it('is 1 for a black image', () => expect(new InputScale().value).toBe(1));
});

const REACH = 112;
describe('pieces', () => {
  for (const [width, height, most] of [
    [100, 70, undefined],
    [64, 64, undefined],
    [1654, 1170, undefined],
    [3000, 5000, undefined],
    [30_000, 64, undefined],
    [700, 300, 200_000],
    [17, 1, 1]
  ] as const) {
    it(`${width} x ${height}: cores of whole tiles cover every pixel once, with a halo, aligned, and none is larger than it may be`, () => {
      const pieces = piecesOf(width, height, REACH, most);
      const seen = new Uint8Array(width * height);
      for (const { x, y, width: w, height: h, core } of pieces) {
        for (let v = core.y; v < core.y + core.height; v++)
          for (let u = core.x; u < core.x + core.width; u++) seen[v * width + u]!++;
        expect([x, y, w, h].map((n) => n % ALIGN_PX)).toEqual([0, 0, 0, 0]);
        expect([core.x % TILE_PX, core.y % TILE_PX]).toEqual([0, 0]);
        expect(x === 0 || core.x - x === REACH).toBe(true);
        expect(x + w >= Math.min(width, core.x + core.width + REACH)).toBe(true);
        expect(y + h >= Math.min(height, core.y + core.height + REACH)).toBe(true);
        if (most !== 1) expect(w * h).toBeLessThanOrEqual(most ?? 1_300_000);
      }
      expect(seen.every((n) => n === 1)).toBe(true);
      for (const tile of tilesOf(width, height))
        expect(
          pieces.filter(
            ({ core }) =>
              tile.x >= core.x && tile.x < core.x + core.width && tile.y >= core.y && tile.y < core.y + core.height
          )
        ).toHaveLength(1);
    });
  }
  it('are as few as fit: a screen is two', () => {
    expect(piecesOf(1920, 1080, REACH)).toHaveLength(2);
    expect(piecesOf(1280, 720, REACH)).toHaveLength(1);
  });
  it('grow as far as the image goes, and what planes hold of the smaller is taken out of the larger', () => {
    const [, right] = piecesOf(1920, 1080, REACH);
    const around = grown(right!, 96, { width: 1920, height: 1080 });
    expect([around.x, around.y, around.width, around.height]).toEqual([
      right!.x - 96,
      0,
      right!.width + 96,
      right!.height
    ]);
    const planes = Float32Array.from({ length: 2 * around.width * around.height }, (_, i) => i);
    const inner = cropPlanes(planes, 2, around, right!);
    expect([inner[0], inner[right!.width], inner[right!.width * right!.height]]).toEqual([
      96,
      around.width + 96,
      around.width * around.height + 96
    ]);
  });
  it('mirrors what lies beyond the end, and holds on to the first of a very short side', () => {
    expect([0, 8, 9, 10, 11].map((i) => mirrored(i, 10))).toEqual([0, 8, 9, 9, 8]);
    expect(mirrored(15, 1)).toBe(0);
  });
});
