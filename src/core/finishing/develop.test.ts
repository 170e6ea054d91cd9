import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Finish } from '../brief/brief';
import { luminanceOfLightness } from '../color/lightness';
import { encodeSrgb } from '../color/srgb';
import { kelvinToRec709 } from '../color/kelvin';
import { toneCurve } from '../color/tone';
import { CHANNELS } from '../film/film';
import { lightOfTile } from '../film/light';
import { squaredGrain } from '../quality/grain';
import { createDeveloper, linearTile } from './develop';

const own: Finish = BRIEF_DEFAULTS.finish;
/**
 * One pixel after `n` samples of radiance `value`, a share of which came straight from the surroundings at radiance
 * `behind`.
 */
function pixel(value: number, n: number, share = 0, behind = 0): Float32Array {
  const p = new Float32Array(CHANNELS);
  p.fill((value * n) / 2, 0, 6);
  p.fill(behind * share * n, 6, 9);
  p[9] = share * n;
  return p;
}
const develop = (tile: Float32Array, n: number, white: number, finish = own) => {
  const out = new Float32Array(4);
  createDeveloper({ width: 1, height: 1, white, finish })(
    { x: 0, y: 0, width: 1, height: 1, light: lightOfTile(tile, 1, n) },
    out
  );
  // as codes of sRGB, neither rounded nor dithered
  return [...out].map((v, c) => 255 * (c === 3 ? v : encodeSrgb(v)));
};

const close = (got: readonly number[], wanted: readonly number[]) => {
  for (const [i, v] of got.entries()) expect(Math.abs(v - wanted[i]!)).toBeLessThan(0.01);
};

describe('developing', () => {
  it('is mean, exposure, tone curve, sRGB', () => {
    for (const value of [0.5, 20, 80, 400])
      expect(develop(pixel(value, 16), 16, 120)[0]).toBeCloseTo(255 * encodeSrgb(toneCurve(value / 120)), 3);
  });
  it('never falls while light grows, from black to white', () => {
    const codes: number[] = [];
    for (let value = 1e-4; value < 1e5; value *= 1.001) {
      const code = develop(pixel(value, 2), 2, 120)[0]!;
      expect(Math.abs(code - 255 * encodeSrgb(toneCurve(value / 120)))).toBeLessThan(0.01);
      codes.push(code);
    }
    expect(codes.every((code, i) => i === 0 || code >= codes[i - 1]!)).toBe(true);
    expect(new Set(codes.map(Math.round)).size).toBe(256);
  });
  it('a stop of exposure doubles what is developed', () =>
    expect(develop(pixel(30, 16), 16, 120, { ...own, exposure_ev: 1 })).toEqual(develop(pixel(60, 16), 16, 120)));
  it('a white balance makes its light neutral', () => {
    const warm = new Float32Array(CHANNELS);
    const light = kelvinToRec709(3000);
    for (let c = 0; c < 6; c++) warm[c] = (20 * light[c % 3]! * 16) / 2;
    const [r, g, b] = develop(warm, 16, 120, { ...own, white: { kelvin: 3000, tint: 0 } });
    expect(Math.max(r!, g!, b!) - Math.min(r!, g!, b!)).toBeLessThanOrEqual(1);
    expect(develop(warm, 16, 120)[0]).toBeGreaterThan(develop(warm, 16, 120)[2]! + 40);
  });
  it('does not depend on how many samples made the mean', () =>
    expect(develop(pixel(30, 4), 4, 120)).toEqual(develop(pixel(30, 64), 64, 120)));
  it('a clear background takes the surroundings away and keeps the thing’s own colour', () => {
    // half the pixel shows a thing of radiance 40, half the surroundings of radiance 100: mean 70
    const clear: Finish = { ...own, background: { kind: 'clear' } };
    close(develop(pixel(70, 16, 0.5, 100), 16, 120, clear), [...develop(pixel(40, 16), 16, 120).slice(0, 3), 127.5]);
    expect(develop(pixel(100, 16, 1, 100), 16, 120, clear)).toEqual([0, 0, 0, 0]);
  });
  it('a plain background takes the place of the surroundings, by how much of them is seen', () => {
    const plain: Finish = { ...own, background: { kind: 'plain', lightness: 50 } };
    const grey = 255 * encodeSrgb(luminanceOfLightness(50));
    close(develop(pixel(100, 16, 1, 100), 16, 120, plain), [grey, grey, grey, 255]);
    expect(develop(pixel(40, 16), 16, 120, plain)).toEqual(develop(pixel(40, 16), 16, 120));
    const half = develop(pixel(70, 16, 0.5, 100), 16, 120, plain)[0]!;
    const mixed = (toneCurve(40 / 120) + luminanceOfLightness(50)) / 2;
    expect(Math.abs(half - 255 * encodeSrgb(mixed))).toBeLessThan(1.5);
  });
  it('a background spreads over the whole sheet, of which a patch has its part', () => {
    const graded: Finish = {
      ...own,
      background: { kind: 'graded', from: '#000000', to: '#ffffff', angle_deg: 90, spread: 1 }
    };
    const alone = pixel(100, 16, 1, 100);
    const seen = (within: { x: number; width: number }) => {
      const out = new Float32Array(4);
      createDeveloper({ width: 1, height: 1, white: 120, finish: graded, within: { ...within, y: 0, height: 1 } })(
        { x: 0, y: 0, width: 1, height: 1, light: lightOfTile(alone, 1, 16) },
        out
      );
      return 255 * encodeSrgb(out[0]!);
    };
    expect(Math.abs(seen({ x: 0, width: 1 }) - 127)).toBeLessThanOrEqual(2);
    expect(seen({ x: 0, width: 0.02 })).toBeLessThanOrEqual(2);
    expect(seen({ x: 0.98, width: 0.02 })).toBeGreaterThanOrEqual(253);
  });
  it('linear values are premultiplied and untouched by exposure', () => {
    const out = new Float32Array(4);
    linearTile(pixel(70, 16, 0.5, 100), 1, 16, true, out);
    expect([...out]).toEqual([20, 20, 20, 0.5]);
    linearTile(pixel(70, 16, 0.5, 100), 1, 16, false, out);
    expect([...out]).toEqual([70, 70, 70, 1]);
  });
});

describe('grain', () => {
  it('is zero where the halves agree and grows as they part', () => {
    const tile = pixel(50, 16);
    expect(squaredGrain(tile, 1, 16, 120)).toBeCloseTo(0, 8);
    tile.fill(50 * 8 * 1.2, 0, 3);
    const small = squaredGrain(tile, 1, 16, 120);
    tile.fill(50 * 8 * 1.6, 0, 3);
    expect(squaredGrain(tile, 1, 16, 120)).toBeGreaterThan(small);
  });
  it('estimates the true error of the mean: simulated noise of known spread', () => {
    // halves of 8 samples with a standard error of 4 % each; L* of the mean then has about half the difference's spread
    const n = 4000;
    const tile = new Float32Array(n * CHANNELS);
    let seed = 1;
    const gauss = () => {
      let s = 0;
      for (let i = 0; i < 12; i++) {
        seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
        s += seed / 4294967296;
      }
      return s - 6;
    };
    for (let i = 0; i < n; i++) {
      tile.fill(50 * 8 * (1 + 0.04 * gauss()), i * CHANNELS, i * CHANNELS + 3);
      tile.fill(50 * 8 * (1 + 0.04 * gauss()), i * CHANNELS + 3, i * CHANNELS + 6);
    }
    const lightnessOf = (v: number) => 116 * Math.cbrt(toneCurve(v / 120)) - 16;
    const slope = (lightnessOf(50.5) - lightnessOf(49.5)) / 1;
    const truth = (slope * 50 * 0.04) / Math.SQRT2;
    expect(Math.sqrt(squaredGrain(tile, n, 16, 120) / n) / truth).toBeGreaterThan(0.9);
    expect(Math.sqrt(squaredGrain(tile, n, 16, 120) / n) / truth).toBeLessThan(1.1);
  });
});
