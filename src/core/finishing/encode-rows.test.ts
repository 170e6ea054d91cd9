import { describe, expect, it } from 'vitest';
import { decodeSrgb, encodeSrgb } from '../color/srgb';
import { halfBits } from '../math/half';
import { encodeRows, encodeSamples, encodeSrgb8 } from './encode-rows';
import { adjusted, type Adjustment, type FloatRows } from './float-rows';

/** A picture by a function of place, opaque grey. */
const picture = (width: number, height: number, value: (x: number, y: number) => number): FloatRows => ({
  width,
  height,
  async read(y, count) {
    const out = new Float32Array(width * count * 4).fill(1);
    for (let i = 0; i < width * count; i++) out.fill(value(i % width, y + Math.floor(i / width)), i * 4, i * 4 + 3);
    return out;
  }
});
const reds = (codes: ArrayLike<number>) => Array.from({ length: codes.length / 4 }, (_, i) => codes[i * 4]!);

describe('8-bit codes', () => {
  it('show no bands in a gradient of two codes over 512 px: no run of one code is long, and local means follow it', async () => {
    const level = (x: number) => (100 + (2 * x) / 512) / 255;
    const codes = await encodeRows(
      picture(512, 64, (x) => decodeSrgb(level(x))),
      '8 bit'
    ).read(0, 64);
    const red = reds(codes);
    const row = red.slice(512 * 20, 512 * 21);
    let run = 0;
    let longest = 0;
    // within a code of the ends everything is one code, as it should be
    for (let x = 26; x < 230; x++) {
      run = row[x] === row[x - 1] ? run + 1 : 0;
      longest = Math.max(longest, run);
    }
    expect(longest).toBeLessThan(24);
    for (let x = 16; x < 480; x += 32) {
      let sum = 0;
      for (let y = 0; y < 64; y++) for (let i = 0; i < 16; i++) sum += red[y * 512 + x + i]!;
      expect(Math.abs(sum / 1024 - 255 * level(x + 7.5))).toBeLessThan(0.05);
    }
  });
  it('are within a code of the value, exact at black and white, and the same in strips as in one piece', async () => {
    const rows = picture(37, 70, (x, y) => ((x * 70 + y) % 401) / 400);
    const whole = await encodeRows(rows, '8 bit').read(0, 70);
    const strips = [0, 7, 30, 69].map((y, i, all) => [y, (all[i + 1] ?? 70) - y] as const);
    for (const [y, count] of strips)
      expect(await encodeRows(rows, '8 bit').read(y, count)).toEqual(whole.subarray(y * 37 * 4, (y + count) * 37 * 4));
    const linear = await rows.read(0, 70);
    whole.forEach((code, i) => {
      const exact = 255 * (i % 4 === 3 ? 1 : encodeSrgb(linear[i]!));
      expect(Math.abs(code - exact)).toBeLessThan(1);
      if (linear[i] === 0 || linear[i] === 1) expect(code).toBe(Math.round(exact));
    });
  });
  it('of some columns leave the others as they are', () => {
    const out = new Uint8Array(4 * 4).fill(7);
    encodeSrgb8(new Float32Array(16).fill(1), 4, 0, out, 1, 3);
    expect(reds(out)).toEqual([7, 255, 255, 7]);
  });
});

describe('deeper samples', () => {
  it('of 16 bits are the curve of IEC 61966-2-1 to the nearest code, and alpha is not encoded', () => {
    const rows = Float32Array.of(0.18, 0.0005, 1.5, 0.5);
    const codes = encodeSamples(rows, 1, 0, '16 bit', 'sRGB');
    expect(Math.abs(codes[0]! - 65_535 * encodeSrgb(Math.fround(0.18)))).toBeLessThan(0.6);
    expect(Math.abs(codes[1]! - 65_535 * encodeSrgb(Math.fround(0.0005)))).toBeLessThan(0.6);
    expect([codes[2], codes[3]]).toEqual([65_535, 32_768]);
  });
  it('of half floats have the bits of IEEE 754: ties to even, subnormals, infinity', () => {
    const known: [number, number][] = [
      [0, 0x0000],
      [1, 0x3c00],
      [-2, 0xc000],
      [65_504, 0x7bff],
      [65_520, 0x7c00],
      [1e9, 0x7c00],
      [2 ** -14, 0x0400],
      [2 ** -24, 0x0001],
      [2 ** -25, 0x0000],
      [1.5 * 2 ** -24, 0x0002],
      [1 + 2 ** -11, 0x3c00],
      [1 + 3 * 2 ** -11, 0x3c02],
      [0.333251953125, 0x3555],
      [Number.POSITIVE_INFINITY, 0x7c00]
    ];
    for (const [value, bits] of known) expect([value, halfBits(value)]).toEqual([value, bits]);
    expect(halfBits(Number.NaN) & 0x7fff).toBeGreaterThan(0x7c00);
  });
  it('of floats are the light itself', () => {
    expect([...encodeSamples(Float32Array.of(2.5, 0.1, 0, 1), 1, 0, 'float', 'linear')]).toEqual([
      2.5,
      Math.fround(0.1),
      0,
      1
    ]);
  });
});

describe('adjustments', () => {
  /** The mean of a pixel and those two above and below. */
  const blur: Adjustment = {
    halo: 2,
    apply(source, out, { width, first, count }) {
      const height = source.length / (width * 4);
      for (let y = 0; y < count; y++)
        for (let i = 0; i < width * 4; i++) {
          let sum = 0;
          for (let d = -2; d <= 2; d++)
            sum += source[Math.min(height - 1, Math.max(0, first + y + d)) * width * 4 + i]!;
          out[y * width * 4 + i] = sum / 5;
        }
    }
  };
  const double: Adjustment = {
    halo: 0,
    apply(source, out, { width, first, count }) {
      out.set(source.subarray(first * width * 4, (first + count) * width * 4).map((v) => 2 * v));
    }
  };
  it('see their neighbours across strips: any strips give the picture that one piece gives', async () => {
    const rows = adjusted(
      picture(5, 40, (x, y) => ((x + 3 * y) % 7) / 20),
      [blur, double, blur]
    );
    const whole = await rows.read(0, 40);
    for (const size of [1, 3, 16])
      for (let y = 0; y < 40; y += size) {
        const count = Math.min(size, 40 - y);
        expect(await rows.read(y, count)).toEqual(whole.subarray(y * 20, (y + count) * 20));
      }
  });
  it('are made in their order', async () => {
    const plain = picture(2, 4, () => 0.25);
    expect((await adjusted(plain, [double]).read(1, 1))[0]).toBe(0.5);
    expect((await adjusted(plain, [double, double]).read(1, 1))[0]).toBe(1);
  });
});
