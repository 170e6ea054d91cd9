import { describe, expect, it } from 'vitest';
import { developStrip } from './captured-strip';

/** A panorama whose rows and columns are told by `at`, as rgb. */
function panorama(
  width: number,
  at: (x: number, y: number) => number
): { width: number; height: number; pixels: Float32Array } {
  const height = width / 2;
  const pixels = new Float32Array(width * height * 3);
  for (let i = 0; i < width * height; i++) pixels.fill(at(i % width, Math.floor(i / width)), i * 3, i * 3 + 3);
  return { width, height, pixels };
}

describe('a captured image as a strip', () => {
  it('has the whole circle, 40 degrees up and down, in at most 1,024 px', () => {
    const { width, height, pixels } = developStrip(panorama(4096, () => 1));
    expect([width, height, pixels.length]).toEqual([1024, 228, 1024 * 228 * 4]);
    expect(developStrip(panorama(360, () => 1)).height).toBe(80);
  });
  it('leaves out what is above and below: a blinding zenith does not darken it', () => {
    const plain = developStrip(panorama(360, (x) => 1 + x / 360));
    expect(developStrip(panorama(360, (x, y) => (y < 50 || y >= 130 ? 1e6 : 1 + x / 360))).pixels).toEqual(
      plain.pixels
    );
  });
  it('is developed by its own light: the same picture ten thousand times as bright', () => {
    const [dim, bright] = [1, 10_000].map(
      (k) => developStrip(panorama(360, (x, y) => k * (1 + x / 90 + y / 90))).pixels
    );
    // the meter reads in hundredths of a stop
    expect(dim!.every((v, i) => Math.abs(v - bright![i]!) <= 1)).toBe(true);
  });
  it('has a grey that fills it at L* 50, sRGB 119', () => {
    const { pixels } = developStrip(panorama(360, () => 3));
    expect(Math.abs(pixels[0]! - 119)).toBeLessThanOrEqual(1);
    expect(pixels[3]).toBe(255);
  });
});
