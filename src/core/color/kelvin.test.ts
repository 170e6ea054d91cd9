import { describe, expect, it } from 'vitest';
import { luminance } from './spaces';
import { kelvinToRec709, kelvinToXy } from './kelvin';

describe('colour from kelvin', () => {
  it('meets illuminant A at 2,856 K (CIE 15) and the black body at 6,500 and 10,000 K (Planck; values from memory)', () => {
    for (const [kelvin, x, y] of [
      [2856, 0.44757, 0.40745],
      [6500, 0.3135, 0.3236],
      [10_000, 0.2807, 0.2884]
    ] as const) {
      const [a, b] = kelvinToXy(kelvin);
      expect(Math.abs(a - x)).toBeLessThan(0.001);
      expect(Math.abs(b - y)).toBeLessThan(0.001);
    }
  });
  it('has luminance 1, warm with red on top and cool with blue', () => {
    for (const kelvin of [1800, 2700, 5000, 9000, 15_000]) expect(luminance(kelvinToRec709(kelvin))).toBeCloseTo(1, 9);
    const warm = kelvinToRec709(2700);
    const cool = kelvinToRec709(10_000);
    expect(warm[0]).toBeGreaterThan(2 * warm[2]);
    expect(cool[2]).toBeGreaterThan(cool[0]);
  });
  it('turns green or magenta by its tint, at about the same kelvin', () => {
    const [plain, green, magenta] = [kelvinToRec709(5000), kelvinToRec709(5000, 1), kelvinToRec709(5000, -1)];
    expect(green[1]).toBeGreaterThan(plain[1]);
    expect(magenta[1]).toBeLessThan(plain[1]);
  });
  it('refuses what no lamp has', () => {
    expect(() => kelvinToXy(500)).toThrow(/1000 to 15000 K, got 500/);
  });
});
