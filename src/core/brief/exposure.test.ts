import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, GROUND_DEFAULTS, SURROUNDINGS_DEFAULTS } from './brief';
import { exposureRule, openedEv, readMeter, whiteLuminance } from './exposure';

/** What a frame's luminances become, in shares of white. */
function shown(paper: number | null, luminances: number[]): (luminance: number) => number {
  const white = whiteLuminance(openedEv({ paper }, readMeter(luminances)));
  return (luminance) => luminance / white;
}
const frame = (...parts: [count: number, luminance: number][]) =>
  parts.flatMap(([count, luminance]) => new Array<number>(count).fill(luminance));

describe('automatic exposure', () => {
  it('makes paper of paper, whatever the light', () => {
    for (const light of [1, 500]) {
      const product = frame([60, 0.7 * light], [10, 0.65 * light], [25, 0.1 * light], [5, 20 * light]);
      expect(shown(0.7, product)(0.7 * light)).toBeCloseTo(0.6 * Math.sqrt(0.7), 1);
    }
  });

  it('does not make white of black paper', () => {
    expect(shown(0.05, frame([80, 0.05], [20, 0.6]))(0.05)).toBeLessThan(0.2);
  });

  it('opens an even scene to a bright middle', () => {
    expect(shown(null, frame([100, 300]))(300)).toBeCloseTo(0.17, 2);
  });

  it('keeps the bright parts of a scene below white, and never closes for them', () => {
    const landscape = frame([50, 300], [30, 600], [20, 2500]);
    expect(shown(null, landscape)(2500)).toBeLessThan(0.7);
    // a room whose window takes a fifth of it: the window is let go
    const room = frame([80, 20], [20, 5000]);
    expect(openedEv({ paper: null }, readMeter(room))).toBe(readMeter(room).ev100);
  });

  it('does not follow a lamp or a glint', () => {
    const plain = frame([100, 50]);
    const withLamp = frame([96, 50], [4, 1e6]);
    expect(openedEv({ paper: null }, readMeter(withLamp))).toBeCloseTo(openedEv({ paper: null }, readMeter(plain)), 1);
  });
});

describe('exposureRule', () => {
  const studio = { ...SURROUNDINGS_DEFAULTS.studio, paper: null, backdrop: null };
  const rule = (part: object) => exposureRule({ ...BRIEF_DEFAULTS, exposure: { metered: true }, ...part });
  it('knows the paper of a studio, and none where there is none', () => {
    expect(rule({ surroundings: studio }).paper).toBeGreaterThan(0.3);
    expect(rule({ surroundings: { ...studio, paper: 0.9 } }).paper).toBe(0.9);
    expect(rule({ surroundings: { ...studio, backdrop: 'none' } }).paper).toBeNull();
    expect(rule({ surroundings: studio, ground: GROUND_DEFAULTS }).paper).toBeNull();
    expect(rule({ surroundings: SURROUNDINGS_DEFAULTS.sky }).paper).toBeNull();
  });
  it('takes what is stated', () => {
    expect(rule({ exposure: { ev100: 9 } }).ev100).toBe(9);
  });
});
