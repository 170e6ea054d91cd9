import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS } from '../brief/brief';
import { createCameraFrame } from '../camera/lens';
import type { FreeViewpoint } from '../camera/viewpoint';
import { aspectOf, inProportion, sameAspect, widened } from './fit-frame';

const view = BRIEF_DEFAULTS.viewpoint as FreeViewpoint;

describe('a picture on a sheet of another proportion', () => {
  it.each([
    ['perspective', 1.5, 0.7],
    ['perspective', 1, 2],
    ['parallel', 1.5, 0.7],
    ['parallel', 0.5, 0.4]
  ] as const)('shows all it showed: %s from %f to %f', (projection, before, after) => {
    const from = { ...view, projection, height_m: projection === 'parallel' ? 3 : null };
    const [was, is] = [createCameraFrame(from, before)!, createCameraFrame(widened(from, before, after), after)!];
    expect(is.halfWidth).toBeGreaterThan(was.halfWidth * 0.9999);
    expect(is.halfHeight).toBeGreaterThan(was.halfHeight * 0.9999);
    // and one side of it fits exactly
    expect(Math.min(is.halfWidth / was.halfWidth, is.halfHeight / was.halfHeight)).toBeCloseTo(1, 4);
  });
  it('leaves the view alone where the proportion stays', () => {
    expect(widened(view, 1.5, 1.5001)).toBe(view);
    expect(
      sameAspect(
        aspectOf({ paper: 'A3', orientation: 'landscape', ppi: 200 }),
        aspectOf({ paper: 'A4', orientation: 'landscape', ppi: 300 })
      )
    ).toBe(true);
  });
  it('or the sheet is cut to it: the largest within, at the same density', () => {
    expect(inProportion({ paper: 'A3', orientation: 'landscape', ppi: 200 }, 16 / 9)).toEqual({
      width_mm: 420,
      height_mm: 236.25,
      ppi: 200
    });
    expect(inProportion({ paper: 'A3', orientation: 'landscape', ppi: 200 }, 1)).toEqual({
      width_mm: 297,
      height_mm: 297,
      ppi: 200
    });
    expect(inProportion({ width_px: 1920, height_px: 1080 }, 1)).toEqual({ width_px: 1080, height_px: 1080 });
  });
});
