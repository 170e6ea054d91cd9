import { converter } from 'culori';
import { describe, expect, it } from 'vitest';
import { evOfCamera, evOfLuminance, meter, whiteLuminance } from '../brief/exposure';
import { lightness, luminanceOfLightness } from './lightness';
import { rec709ToXyz, xyzToRec709 } from './spaces';
import { colorMatching, correlatedKelvin, planck, spectrumToXyz, WAVELENGTHS_NM } from './spectrum';
import { decodeSrgb, encodeSrgb } from './srgb';
import { toneColor, toneCurve } from './tone';

describe('sRGB (IEC 61966-2-1)', () => {
  it('round-trips all 256 codes', () => {
    for (let c = 0; c < 256; c++) expect(Math.round(255 * encodeSrgb(decodeSrgb(c / 255)))).toBe(c);
  });
  it('agrees with culori', () => {
    const toLinear = converter('lrgb');
    for (const v of [0.01, 0.04, 0.2, 0.5, 0.9])
      expect(decodeSrgb(v)).toBeCloseTo(toLinear({ mode: 'rgb', r: v, g: v, b: v }).r, 6);
  });
});

describe('lightness and XYZ', () => {
  it('L* of 18 % grey is 49.5, and goes both ways (CIE 15)', () => {
    expect(lightness(0.18)).toBeCloseTo(49.496, 2);
    for (const y of [0.001, 0.008, 0.05, 0.5, 1]) expect(luminanceOfLightness(lightness(y))).toBeCloseTo(y, 10);
  });
  it('white of Rec. 709 is D65 (CIE 15: x 0.3127, y 0.3290)', () => {
    const [x, y, z] = rec709ToXyz([1, 1, 1]);
    expect(x / (x + y + z)).toBeCloseTo(0.3127, 3);
    expect(y / (x + y + z)).toBeCloseTo(0.329, 3);
    expect(xyzToRec709([x, y, z]).map((v) => Math.round(v * 1e4) / 1e4)).toEqual([1, 1, 1]);
  });
  it('the colour-matching fit peaks at 1 near 555 nm and gives illuminant A 2,856 K', () => {
    expect(colorMatching(555)[1]).toBeCloseTo(1, 1);
    const a = spectrumToXyz(WAVELENGTHS_NM.map((nm) => planck(nm, 2856)));
    expect(Math.abs(correlatedKelvin(a) - 2856)).toBeLessThan(90);
  });
});

describe('exposure (ISO 12232, ISO 2720)', () => {
  it('EV of f/16, 1/125 s, ISO 100 is about 15; Lmax doubles with a stop', () => {
    expect(evOfCamera(16, 1 / 125, 100)).toBeCloseTo(14.97, 2);
    expect(whiteLuminance(13) / whiteLuminance(12)).toBe(2);
  });
  it('meters an even frame at its luminance', () =>
    expect(meter(new Array(100).fill(800))).toBeCloseTo(evOfLuminance(800), 2));
});

describe('tone curve', () => {
  it('puts a metered surface at L* 50, rises, and never passes white', () => {
    expect(lightness(toneCurve(0.125 / 1.2))).toBeCloseTo(50, 6);
    let last = -1;
    for (let x = 0; x < 50; x += 0.01) {
      const y = toneCurve(x);
      expect(y).toBeGreaterThanOrEqual(last);
      expect(y).toBeLessThanOrEqual(1);
      last = y;
    }
    expect(toneCurve(Number.POSITIVE_INFINITY)).toBe(1);
    expect(toneCurve(Number.NaN)).toBe(0);
  });
  it('keeps greys grey', () => {
    const out = [0, 0, 0];
    toneColor(out, 0.4, 0.4, 0.4);
    expect(out[0]).toBeCloseTo(out[2]!, 12);
  });
});
