/**
 * How a picture's size stands on the mat: paper with a margin and a ruler in mm or inches, a screen picture with marks
 * and px.
 */
import type { SizeChoice } from '../../core/catalogue/size-choice';
import { resolveSize } from '../../core/output/size';

export interface SheetGeometry {
  paper: boolean;
  /** In `unit`s. */
  width: number;
  height: number;
  margin: number;
  unit: 'mm' | 'in' | 'px';
  width_px: number;
  height_px: number;
}

export function sheetGeometry(size: SizeChoice, inches = false): SheetGeometry {
  const s = resolveSize(size);
  if (s.width_mm !== null && s.height_mm !== null) {
    const k = inches ? 1 / 25.4 : 1;
    // 17 mm of margin on A3, in proportion on other sheets, so that the marks look alike
    const margin = Math.max(s.width_mm, s.height_mm) * (17 / 420) * k;
    return {
      paper: true,
      width: s.width_mm * k,
      height: s.height_mm * k,
      margin,
      unit: inches ? 'in' : 'mm',
      width_px: s.width_px,
      height_px: s.height_px
    };
  }
  return {
    paper: false,
    width: s.width_px,
    height: s.height_px,
    margin: Math.max(s.width_px, s.height_px) * 0.0286,
    unit: 'px',
    width_px: s.width_px,
    height_px: s.height_px
  };
}
