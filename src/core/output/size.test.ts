import { describe, expect, it } from 'vitest';
import { DESTINATIONS } from './destinations';
import { PAPER_FAMILIES, PAPER_NAMES, PAPERS } from '../catalogue/papers';
import { askedPpi, resolvedPpi, resolveSize, resolvingDistance, scaleSize, sharpnessOf } from './size';

describe('sizes', () => {
  it('A sheets halve and keep 1 to root 2 (ISO 216)', () => {
    expect(PAPERS.A0).toEqual([841, 1189]);
    const names = ['A0', 'A1', 'A2', 'A3', 'A4', 'A5', 'A6'] as const;
    names.slice(1).forEach((name, i) => {
      const [w, h] = PAPERS[names[i]!];
      expect(PAPERS[name]).toEqual([Math.floor(h / 2), w]);
    });
  });
  it('Letter at 300 ppi is 2550 x 3300 px; A3 at 200 and 300 ppi 3307 x 2339 and 4961 x 3508', () => {
    const px = (paper: keyof typeof PAPERS, orientation: 'portrait' | 'landscape', ppi: number) => {
      const s = resolveSize({ paper, orientation, ppi });
      return [s.width_px, s.height_px];
    };
    expect(px('Letter', 'portrait', 300)).toEqual([2550, 3300]);
    expect(px('A3', 'landscape', 200)).toEqual([3307, 2339]);
    expect(px('A3', 'landscape', 300)).toEqual([4961, 3508]);
  });
  it('doubling both sides makes four times the pixels', () => {
    const a = scaleSize(resolveSize({ width_px: 500, height_px: 300 }), 1);
    const b = scaleSize(resolveSize({ width_px: 1000, height_px: 600 }), 1);
    expect(b.width_px * b.height_px).toBe(4 * a.width_px * a.height_px);
  });
  it('the eye resolves 145 ppi at 0.6 m and 58 at 1.5 m (one minute of arc)', () => {
    expect(Math.round(resolvedPpi(0.6))).toBe(146);
    expect(Math.round(resolvedPpi(1.5))).toBe(58);
  });
  it('B sheets lie between A sheets: the geometric mean of two (ISO 216), and halve as they do', () => {
    for (const n of [1, 2, 3, 4, 5] as const) {
      const [a, smaller, b] = [PAPERS[`A${(n - 1) as 0}`], PAPERS[`A${n}`], PAPERS[`B${n}`]];
      for (const k of [0, 1]) expect(Math.abs(b[k]! - Math.sqrt(a[k]! * smaller[k]!))).toBeLessThan(1.2);
    }
    expect(PAPERS.B0).toEqual([1000, 1414]);
  });
  it('ANSI and ARCH sheets are whole inches (ANSI/ASME Y14.1)', () => {
    const inches = (paper: keyof typeof PAPERS) =>
      PAPERS[paper].map((mm) => mm / 25.4).map((v) => Math.round(v * 100) / 100);
    expect(inches('ANSI D')).toEqual([22, 34]);
    expect(inches('ANSI E')).toEqual([34, 44]);
    expect(inches('ARCH D')).toEqual([24, 36]);
    expect(inches('ARCH E')).toEqual([36, 48]);
    expect(PAPER_FAMILIES.flatMap((f) => f.papers).sort()).toEqual([...PAPER_NAMES].sort());
  });
  it('the density asked for is 1.75 times that, 72 to 300; A3 at arm’s length then has 4,000 to 4,500 px (trade)', () => {
    expect(askedPpi(0.6, 420)).toBe(255);
    expect(askedPpi(0.3, 297)).toBe(300);
    expect(askedPpi(10, 600)).toBe(72);
    const px = (name: string) => {
      const { width_px, height_px } = resolveSize(DESTINATIONS.find((d) => d.name.startsWith(name))!.size);
      return Math.max(width_px, height_px);
    };
    expect(px('A3')).toBeGreaterThan(4000);
    expect(px('A3')).toBeLessThan(4500);
    // big boards 5,000 to 6,000 px (trade)
    for (const name of ['A1', 'A0']) {
      expect(px(name)).toBeGreaterThanOrEqual(5000);
      expect(px(name)).toBeLessThanOrEqual(6000);
    }
  });
  it('says when pixels would show, and when they are wasted', () => {
    expect(sharpnessOf(140, 0.6, 420)).toBe('coarse');
    expect(sharpnessOf(255, 0.6, 420)).toBe('fits');
    expect(sharpnessOf(400, 0.6, 420)).toBe('wasted');
    expect(sharpnessOf(300, 3, 1189)).toBe('wasted');
    // in the hand more than 300 would be seen, but no printer has it
    expect(sharpnessOf(300, 0.25, 150)).toBe('fits');
    expect(resolvedPpi(resolvingDistance(300))).toBeCloseTo(300, 9);
  });
});
