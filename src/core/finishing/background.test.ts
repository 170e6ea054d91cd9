import { describe, expect, it } from 'vitest';
import type { Background } from '../brief/brief';
import { CORNERS } from '../catalogue/corners';
import { lightness, luminanceOfLightness } from '../color/lightness';
import { encodeSrgb } from '../color/srgb';
import { behindOf } from './background';

const at = (background: Background, u: number, v: number, aspect = 1.5) => {
  const out = [0, 0, 0];
  behindOf(background, aspect)!(u, v, out);
  return out;
};
const codes = (values: number[]) => values.map((v) => 255 * encodeSrgb(v));

describe('what is put behind the model', () => {
  it('is nothing where the surroundings are seen, or where it is clear', () => {
    expect(behindOf({ kind: 'own' }, 1)).toBeNull();
    expect(behindOf({ kind: 'clear' }, 1)).toBeNull();
    expect(at({ kind: 'plain', lightness: 40 }, 0.3, 0.9)).toEqual(Array(3).fill(luminanceOfLightness(40)));
  });
  it('grades from one colour above to the other below, even at its ends, half way in the middle', () => {
    const sky: Background = { kind: 'graded', from: '#204080', to: '#e0c0a0', angle_deg: 0, spread: 0.5 };
    const near = (a: number[], b: number[]) => expect(Math.max(...a.map((v, c) => Math.abs(v - b[c]!)))).toBeLessThan(1);
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
  it('paper has a fine grain about its lightness, the same at every size', () => {
    const sheet: Background = { kind: 'paper', lightness: 90, corner: null, fall: 0, grain: 2 };
    const values = Array.from({ length: 2000 }, (_, i) => lightness(at(sheet, (i % 50) / 50, Math.floor(i / 50) / 40)[0]!));
    const mean = values.reduce((a, b) => a + b) / values.length;
    const deviation = Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length);
    expect(mean).toBeCloseTo(90, 0);
    expect(deviation).toBeGreaterThan(0.3);
    expect(deviation).toBeLessThan(1.5);
    expect(at(sheet, 0.123, 0.456)).toEqual(at(sheet, 0.123, 0.456));
  });
});
