/** From the brief's size to pixels, millimetres and density; all arithmetic of print size stands here. */
import { type Orientation, PAPERS } from '../catalogue/papers';
import { MM_PER_INCH } from '../units/units';
import type { SizeChoice } from '../catalogue/size-choice';

export interface SheetSize {
  width_px: number;
  height_px: number;
  /** Of the trimmed sheet; null for screen sizes. */
  width_mm: number | null;
  height_mm: number | null;
  ppi: number | null;
}

export const toPixels = (mm: number, ppi: number): number => Math.max(1, Math.round((mm / MM_PER_INCH) * ppi));

export function paperMm(paper: keyof typeof PAPERS, orientation: Orientation): [number, number] {
  const [short, long] = PAPERS[paper];
  return orientation === 'landscape' ? [long, short] : [short, long];
}

export function resolveSize(size: SizeChoice): SheetSize {
  if ('paper' in size) {
    const [width_mm, height_mm] = paperMm(size.paper, size.orientation);
    return { width_px: toPixels(width_mm, size.ppi), height_px: toPixels(height_mm, size.ppi), width_mm, height_mm, ppi: size.ppi };
  }
  if ('width_mm' in size) {
    return { width_px: toPixels(size.width_mm, size.ppi), height_px: toPixels(size.height_mm, size.ppi), width_mm: size.width_mm, height_mm: size.height_mm, ppi: size.ppi };
  }
  return { width_px: size.width_px, height_px: size.height_px, width_mm: null, height_mm: null, ppi: null };
}

/** Size of a proof: a share of the whole, never less than a pixel. */
export function scaleSize(size: SheetSize, share: number): { width_px: number; height_px: number } {
  return { width_px: Math.max(1, Math.round(size.width_px * share)), height_px: Math.max(1, Math.round(size.height_px * share)) };
}

/** Finest ppi a normal eye resolves at a distance: one minute of arc. Source: normal acuity, any optics text. */
export function resolvedPpi(distance_m: number): number {
  return MM_PER_INCH / (distance_m * 1000 * Math.tan(Math.PI / 180 / 60));
}
