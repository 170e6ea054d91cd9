import { describe, expect, it } from 'vitest';
import { CHANNELS, tileFloats } from './film';
import { isWithoutEffect, LampShares } from './lamp-shares';

/** A tile whose two groups have these radiances at each pixel. */
function tile(width: number, height: number, of: (x: number, y: number) => [number, number]) {
  const data = new Float32Array(tileFloats(width * height, 2));
  for (let i = 0; i < width * height; i++) {
    for (const [g, v] of of(i % width, Math.floor(i / width)).entries())
      data.fill(v, width * height * CHANNELS + (i * 2 + g) * 3, width * height * CHANNELS + (i * 2 + g) * 3 + 3);
  }
  return data;
}

describe('what lamps bring', () => {
  it('is their share of all light, and the most of any place', () => {
    const shares = new LampShares(['sun', 'lamp']);
    // the lamp alone lights one block of eight
    shares.add(
      { index: 0, x: 0, y: 0, width: 64, height: 32 },
      tile(64, 32, (x, y) => (x < 16 && y < 16 ? [0, 1] : [1, 0]))
    );
    const [sun, lamp] = shares.result();
    expect(lamp).toMatchObject({ group: 'lamp', share: 1 / 8, most: 1 });
    expect(sun!.share).toBeCloseTo(7 / 8, 9);
    expect(isWithoutEffect(lamp!)).toBe(false);
  });
  it('is nothing where it is a thousandth everywhere, but not where a dark corner lives by it', () => {
    const faint = new LampShares(['sun', 'lamp']);
    faint.add(
      { index: 0, x: 0, y: 0, width: 32, height: 32 },
      tile(32, 32, () => [1, 0.001])
    );
    expect(isWithoutEffect(faint.result()[1]!)).toBe(true);
    const corner = new LampShares(['sun', 'lamp']);
    corner.add(
      { index: 0, x: 0, y: 0, width: 64, height: 64 },
      tile(64, 64, (x, y) => (x < 16 && y < 16 ? [0.01, 0.01] : [1, 0]))
    );
    expect(corner.result()[1]!.share).toBeLessThan(0.001);
    expect(isWithoutEffect(corner.result()[1]!)).toBe(false);
  });
});
