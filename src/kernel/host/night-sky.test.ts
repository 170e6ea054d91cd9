import { describe, expect, it } from 'vitest';
import { dark, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { luminance } from '../../core/color/spaces';
import type { Disc, Stars, SurroundingsLight } from '../../core/lights/surroundings-light';
import { SUN_LIMB } from '../../core/lights/sun/limb';

const floor = makeScene([quad([-50, 0, 50], [50, 0, 50], [50, 0, -50], [-50, 0, -50], matte(1))]);
// a degree and a half across, so that a small picture resolves it
const cap = 1 - Math.cos((0.75 * Math.PI) / 180);
const disc = (more: Partial<Disc>): SurroundingsLight => ({
  ...dark,
  sun: { direction: [0, 1, 0], radiance: [3000, 2000, 1000], oneMinusCos: cap, ...more }
});
const atDisc = viewFrom([0, 1, 0], [0, 2, 0], { focal_length_mm: 500 });
const moon = (degreesOf: number) => ({ phase: (degreesOf * Math.PI) / 180, side: [1, 0, 0] as const });

describe('the disc of sun or moon', () => {
  it('lights a matte floor by its mean whatever its shape: radiance times solid angle over pi', () => {
    const down = viewFrom([0, 5, 0], [0, 0, 0]);
    const expected = (luminance([3000, 2000, 1000]) * 2 * Math.PI * cap) / Math.PI;
    for (const more of [{}, { limb: SUN_LIMB }, { moon: moon(60) }, { moon: moon(110) }]) {
      const { mean } = renderScene(floor, down, { width: 8, height: 8, samples: 1024, light: disc(more), bounces: 1 });
      expect(luminance(mean) / expected).toBeGreaterThan(0.97);
      expect(luminance(mean) / expected).toBeLessThan(1.03);
    }
  });
  it('of the sun is darker and redder at its edge', () => {
    const { pixels } = renderScene(floor, atDisc, {
      width: 48,
      height: 48,
      samples: 16,
      light: disc({ limb: SUN_LIMB })
    });
    const lit = pixels.filter((p) => p[1] > 0);
    const middle = pixels[24 * 48 + 24]!;
    const edge = lit.reduce((a, b) => (b[1] < a[1] && b[1] > 0.35 * middle[1] ? b : a), middle);
    expect(edge[1]).toBeLessThan(0.75 * middle[1]);
    expect(edge[2] / edge[0]).toBeLessThan(middle[2] / middle[0]);
  });
  it('of the moon is lit on the sun’s side, as much of it as its phase has', () => {
    // the area that is lit: what is seen in all, over what a lit place has
    const area = (light: SurroundingsLight) => {
      const { pixels } = renderScene(floor, atDisc, { width: 64, height: 64, samples: 64, light });
      return pixels.reduce((sum, p) => sum + p[0], 0) / Math.max(...pixels.map((p) => p[0]));
    };
    const whole = area(disc({}));
    const share = (degreesOf: number) => area(disc({ moon: moon(degreesOf) })) / whole;
    expect(share(0)).toBeCloseTo(1, 1);
    expect(share(90)).toBeCloseTo(0.5, 1);
    expect(share(130)).toBeCloseTo((1 + Math.cos((130 * Math.PI) / 180)) / 2, 1);
  });
});

describe('stars', () => {
  const field = (more: Partial<Stars> = {}): SurroundingsLight => ({
    ...dark,
    stars: {
      gain: 1,
      axes: [
        [1, 0, 0],
        [0, 0, -1],
        [0, 1, 0]
      ],
      clear: null,
      ...more
    }
  });
  const up = viewFrom([0, 1, 0], [0.4, 2, 0.3], { focal_length_mm: 50 });
  const total = (size: number, light: SurroundingsLight, samples = 64) =>
    luminance(renderScene(floor, up, { width: size, height: size, samples, light }).mean);
  it('send the same light whatever the picture’s fineness', () => {
    const [coarse, fine] = [total(16, field(), 4096), total(64, field(), 512)];
    expect(coarse).toBeGreaterThan(0);
    expect(fine / coarse).toBeGreaterThan(0.85);
    expect(fine / coarse).toBeLessThan(1.15);
  });
  it('are many and faint with a few bright ones', () => {
    const { pixels } = renderScene(floor, up, { width: 64, height: 64, samples: 64, light: field() });
    const bright = pixels.map((p) => p[1]).sort((a, b) => b - a);
    expect(bright[3]! / bright[120]!).toBeGreaterThan(8);
    expect(bright[120]).toBeGreaterThan(0);
    expect(bright[64 * 62]).toBe(0);
  });
  it('light nothing by themselves, and are scaled as they are set', () => {
    expect(
      luminance(renderScene(floor, viewFrom([0, 5, 0], [0, 0, 0]), { samples: 16, light: field({ gain: 1e6 }) }).mean)
    ).toBe(0);
    expect(total(48, field({ gain: 8 }), 16) / total(48, field(), 16)).toBeCloseTo(8, 3);
  });
});
