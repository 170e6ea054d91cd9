import { describe, expect, it } from 'vitest';
import { PAPER_NAMES } from '../catalogue/papers';
import type { SizeChoice } from '../catalogue/size-choice';
import { createRandom } from '../sampling/random';
import { editSize, MAX_SIDE_PX, PPI, SIDE_MM, type SizeEdit } from './edit-size';
import { paperMm, resolveSize, toPixels } from './size';

const a3: SizeChoice = { paper: 'A3', orientation: 'landscape', ppi: 200 };

describe('the size editor', () => {
  it('changes the density of a paper when pixels are typed, and its millimetres never', () => {
    const size = editSize(a3, { side: 'width', px: 5000 }, true);
    expect(size).toMatchObject({ paper: 'A3', orientation: 'landscape' });
    expect(resolveSize(size)).toMatchObject({ width_px: 5000, width_mm: 420, height_mm: 297 });
  });
  it('makes a sheet of one’s own of a paper when millimetres are typed', () => {
    expect(editSize(a3, { side: 'width', mm: 600 }, false)).toEqual({ width_mm: 600, height_mm: 297, ppi: 200 });
    expect(editSize(a3, { side: 'width', mm: 600 }, true)).toEqual({ width_mm: 600, height_mm: 424.29, ppi: 200 });
  });
  it('lets millimetres follow pixels on such a sheet, at the same density', () => {
    expect(editSize({ width_mm: 254, height_mm: 127, ppi: 100 }, { side: 'height', px: 1000 }, true)).toEqual({
      width_mm: 508,
      height_mm: 254,
      ppi: 100
    });
  });
  it('keeps a screen a screen', () => {
    expect(editSize({ width_px: 1920, height_px: 1080 }, { side: 'width', px: 1280 }, true)).toEqual({
      width_px: 1280,
      height_px: 720
    });
    expect(editSize({ width_px: 1920, height_px: 1080 }, { ppi: 300 }, true)).toEqual({
      width_px: 1920,
      height_px: 1080
    });
    expect(editSize({ width_px: 1920, height_px: 1080 }, { turn: 'portrait' }, true)).toEqual({
      width_px: 1080,
      height_px: 1920
    });
  });
  it('takes a paper as it lies, and back to a screen of its pixels', () => {
    expect(editSize({ width_px: 800, height_px: 1200 }, { paper: 'A4' }, true)).toEqual({
      paper: 'A4',
      orientation: 'portrait',
      ppi: 200
    });
    expect(editSize(a3, { screen: true }, true)).toEqual({ width_px: 3307, height_px: 2339 });
    expect(editSize(a3, { own: true }, true)).toEqual({ width_mm: 420, height_mm: 297, ppi: 200 });
  });
  it('stops at 30,000 px a side by lowering the density', () => {
    const poster = resolveSize(editSize({ paper: 'A0', orientation: 'portrait', ppi: 300 }, { ppi: 1200 }, true));
    expect(poster.height_px).toBeLessThanOrEqual(MAX_SIDE_PX);
    expect(poster.height_px).toBeGreaterThan(MAX_SIDE_PX - 60);
    const banner = resolveSize(editSize({ width_mm: 3000, height_mm: 300, ppi: 100 }, { ppi: 600 }, true));
    expect(banner.width_px).toBeLessThanOrEqual(MAX_SIDE_PX);
    expect(banner.width_px).toBeGreaterThan(MAX_SIDE_PX - 10);
  });

  it('keeps pixels, millimetres and density in agreement over any sequence of edits', () => {
    const random = createRandom(606);
    const pick = <T>(of: readonly T[]) => of[Math.floor(random() * of.length)]!;
    const within = (least: number, most: number) => least * (most / least) ** random();
    const edit = (): SizeEdit =>
      pick<() => SizeEdit>([
        () => ({ side: pick(['width', 'height']), px: within(0.2, 60_000) }),
        () => ({ side: pick(['width', 'height']), mm: within(1, 9000) }),
        () => ({ ppi: within(5, 3000) }),
        () => ({ paper: pick(PAPER_NAMES) }),
        () => ({ turn: pick(['landscape', 'portrait']) }),
        () => ({ own: true }),
        () => ({ screen: true })
      ])();
    let size: SizeChoice = a3;
    for (let n = 0; n < 20_000; n++) {
      const before = resolveSize(size);
      const did = edit();
      const locked = random() < 0.5;
      size = editSize(size, did, locked);
      const now = resolveSize(size);
      for (const side of ['width', 'height'] as const) {
        const [px, mm] = [now[`${side}_px`], now[`${side}_mm`]];
        expect(px).toBeGreaterThanOrEqual(1);
        expect(px).toBeLessThanOrEqual(MAX_SIDE_PX);
        if (mm === null) continue;
        expect(mm).toBeGreaterThanOrEqual(SIDE_MM.min);
        expect(mm).toBeLessThanOrEqual(SIDE_MM.max);
        expect(px).toBe(toPixels(mm, now.ppi!));
      }
      if (now.ppi !== null) expect(now.ppi).toBeLessThanOrEqual(PPI.max);
      if ('paper' in size) expect([now.width_mm, now.height_mm]).toEqual(paperMm(size.paper, size.orientation));
      // what was asked for is what there is, unless it lies beyond a limit
      if ('px' in did) {
        const wanted = Math.min(MAX_SIDE_PX, Math.max(1, Math.round(did.px)));
        const got = now[`${did.side}_px`];
        // beside a side of few pixels the other, locked to it, goes in great steps
        const roomy =
          Math.max(now.width_px, now.height_px) < MAX_SIDE_PX - 60 && Math.min(now.width_px, now.height_px) > 600;
        const free =
          roomy &&
          (now.ppi === null ||
            (now.ppi > PPI.min + 1 &&
              now.ppi < PPI.max - 1 &&
              now[`${did.side}_mm`]! > SIDE_MM.min + 1 &&
              now[`${did.side}_mm`]! < SIDE_MM.max - 1));
        // half a hundredth of a millimetre at 1,200 ppi is a quarter of a pixel
        if (free) expect(Math.abs(got - wanted)).toBeLessThanOrEqual(1);
      }
      if ('turn' in did) expect(now.width_px * now.height_px).toBe(before.width_px * before.height_px);
    }
  });
});
