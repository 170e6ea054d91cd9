import { describe, expect, it } from 'vitest';
import type { Background, PictureBackground } from '../brief/brief';
import { CORNERS } from '../catalogue/corners';
import { lightness, luminanceOfLightness } from '../color/lightness';
import { decodeSrgb, encodeSrgb } from '../color/srgb';
import { backdropPixels, backgroundShader, coveredPart } from './background';

const at = (background: Background, u: number, v: number, aspect = 1.5) => {
  const out = [0, 0, 0];
  backgroundShader(background, aspect)!(u, v, out);
  return out;
};
const codes = (values: number[]) => values.map((v) => 255 * encodeSrgb(v));

describe('what is put behind the model', () => {
  it('is nothing where the surroundings are seen, or where it is clear', () => {
    expect(backgroundShader({ kind: 'own' }, 1)).toBeNull();
    expect(backgroundShader({ kind: 'clear' }, 1)).toBeNull();
    expect(at({ kind: 'plain', lightness: 40 }, 0.3, 0.9)).toEqual(Array(3).fill(luminanceOfLightness(40)));
  });
  it('grades from one colour above to the other below, even at its ends, half way in the middle', () => {
    const sky: Background = { kind: 'graded', from: '#204080', to: '#e0c0a0', angle_deg: 0, spread: 0.5 };
    const near = (a: number[], b: number[]) =>
      expect(Math.max(...a.map((v, c) => Math.abs(v - b[c]!)))).toBeLessThan(1);
    near(codes(at(sky, 0.2, 0.1)), [0x20, 0x40, 0x80]);
    near(codes(at(sky, 0.9, 0.9)), [0xe0, 0xc0, 0xa0]);
    near(codes(at(sky, 0.5, 0.5)), [0x80, 0x80, 0x90]);
    // turned by a quarter it runs to the right, and over the whole width with a spread of 1
    const across: Background = { ...sky, angle_deg: 90, spread: 1 };
    near(codes(at(across, 0, 0.7)), [0x20, 0x40, 0x80]);
    near(codes(at(across, 1, 0.7)), [0xe0, 0xc0, 0xa0]);
  });
  it.each(CORNERS)('paper is lighter towards the %s, by what is set there', (corner) => {
    const sheet: Background = { kind: 'paper', lightness: 80, corner, fall: 12, grain: 0 };
    const [u, v] = [corner.endsWith('right') ? 1 : 0, corner.startsWith('lower') ? 1 : 0];
    expect(lightness(at(sheet, u, v)[0]!)).toBeCloseTo(92, 6);
    expect(lightness(at(sheet, 1 - u, 1 - v)[0]!)).toBeCloseTo(80, 6);
  });
  it('a picture covers the sheet, upright, as large as it must be', () => {
    // 4 x 2 px, red growing to the right, green downward
    const image = {
      width: 4,
      height: 2,
      pixels: Uint8Array.from({ length: 32 }, (_, i) => [60 * ((i >> 2) % 4), 200 * (i >> 4), 10, 255][i % 4]!)
    };
    const picture: PictureBackground = {
      kind: 'picture',
      file: 'a',
      across: 0.5,
      down: 0.5,
      enlarged: 1,
      lighter_ev: 0
    };
    const at = (u: number, v: number, aspect: number, more: Partial<PictureBackground> = {}) => {
      const out = [0, 0, 0];
      backgroundShader({ ...picture, ...more }, aspect, image)!(u, v, out);
      return codes(out).map(Math.round);
    };
    // pixel centres are met exactly on a sheet of its own proportion
    for (const x of [0, 1, 2, 3])
      for (const y of [0, 1]) expect(at((x + 0.5) / 4, (y + 0.5) / 2, 2)).toEqual([60 * x, 200 * y, 10]);
    // of a square sheet it overhangs at both sides by half of what is left over: columns 1 and 2 stay
    expect([at(0.25, 0.25, 1), at(0.75, 0.25, 1)].map((c) => c[0])).toEqual([60, 120]);
    expect([at(0.25, 0.25, 1, { across: 0 }), at(0.75, 0.25, 1, { across: 1 })].map((c) => c[0])).toEqual([0, 180]);
    expect(coveredPart(image, { across: 1, down: 0, enlarged: 2 }, 2)).toEqual({
      x: 0.5,
      y: 0,
      width: 0.5,
      height: 0.5
    });
    // beyond the sheet, in the bleed, it goes on mirrored
    expect(at(-1 / 8, 0.25, 2)).toEqual(at(1 / 8, 0.25, 2));
    expect(at(0.125, 1.25, 2)).toEqual(at(0.125, 0.75, 2));
    // a stop lighter is twice the light
    expect(decodeSrgb(at(0.375, 0.25, 2, { lighter_ev: 1 })[0]! / 255) / decodeSrgb(60 / 255)).toBeCloseTo(2, 1);
    expect(backgroundShader(picture, 2, null)).toBeNull();
  });
  it('is read no larger than it is seen, and no larger than it is', () => {
    expect(backdropPixels({ width: 8000, height: 4000 }, { enlarged: 1 }, 1000, 1000)).toEqual({
      width: 2000,
      height: 1000
    });
    expect(backdropPixels({ width: 8000, height: 4000 }, { enlarged: 2 }, 1000, 1000)).toEqual({
      width: 4000,
      height: 2000
    });
    expect(backdropPixels({ width: 800, height: 400 }, { enlarged: 1 }, 3000, 1000)).toEqual({
      width: 800,
      height: 400
    });
  });
  it('paper has a fine grain about its lightness, the same at every size', () => {
    const sheet: Background = { kind: 'paper', lightness: 90, corner: null, fall: 0, grain: 2 };
    const values = Array.from({ length: 2000 }, (_, i) =>
      lightness(at(sheet, (i % 50) / 50, Math.floor(i / 50) / 40)[0]!)
    );
    const mean = values.reduce((a, b) => a + b) / values.length;
    const deviation = Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length);
    expect(mean).toBeCloseTo(90, 0);
    expect(deviation).toBeGreaterThan(0.3);
    expect(deviation).toBeLessThan(1.5);
    expect(at(sheet, 0.123, 0.456)).toEqual(at(sheet, 0.123, 0.456));
  });
});
