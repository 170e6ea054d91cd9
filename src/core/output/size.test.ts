import { describe, expect, it } from 'vitest';
import { PAPERS } from '../catalogue/papers';
import { fileName } from './file-name';
import { resolvedPpi, resolveSize, scaleSize } from './size';

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
  it('file names hold nothing that a path could be made of', () => {
    expect(fileName('../../etc', 'Übersicht / Süd', 'A3 landscape', 'png')).toBe('etc_ubersicht-sud_a3-landscape.png');
    expect(fileName('日本', '…', '', 'exr')).toBe('picture_picture_picture.exr');
  });
});
