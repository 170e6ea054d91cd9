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
    return {
      width_px: toPixels(width_mm, size.ppi),
      height_px: toPixels(height_mm, size.ppi),
      width_mm,
      height_mm,
      ppi: size.ppi
    };
  }
  if ('width_mm' in size) {
    return {
      width_px: toPixels(size.width_mm, size.ppi),
      height_px: toPixels(size.height_mm, size.ppi),
      width_mm: size.width_mm,
      height_mm: size.height_mm,
      ppi: size.ppi
    };
  }
  return { width_px: size.width_px, height_px: size.height_px, width_mm: null, height_mm: null, ppi: null };
}

/** Size of a proof: a share of the whole, never less than a pixel. */
export function scaleSize(size: SheetSize, share: number): { width_px: number; height_px: number } {
  return {
    width_px: Math.max(1, Math.round(size.width_px * share)),
    height_px: Math.max(1, Math.round(size.height_px * share))
  };
}

/** What a proof renders: its own pixels, and where they lie in the trimmed sheet; with bleed they reach beyond it. */
export interface ProofPixels {
  width: number;
  height: number;
  x: number;
  y: number;
  sheetWidth: number;
  sheetHeight: number;
}

interface ProofExtent {
  size: SizeChoice;
  quality: { scale: number };
  patch: SheetShare | null;
  bleed_mm: number;
}

export function proofPixels({ size, quality, patch, bleed_mm }: ProofExtent): ProofPixels {
  const { width_px, height_px } = scaleSize(resolveSize(size), quality.scale);
  if (!patch) {
    const bleed = bleedPixels({ size, quality, bleed_mm });
    return {
      width: width_px + 2 * bleed,
      height: height_px + 2 * bleed,
      x: 0 - bleed,
      y: 0 - bleed,
      sheetWidth: width_px,
      sheetHeight: height_px
    };
  }
  const x = Math.min(width_px - 1, Math.round(patch.x * width_px));
  const y = Math.min(height_px - 1, Math.round(patch.y * height_px));
  const width = Math.max(1, Math.min(width_px - x, Math.round(patch.width * width_px)));
  const height = Math.max(1, Math.min(height_px - y, Math.round(patch.height * height_px)));
  return { width, height, x, y, sheetWidth: width_px, sheetHeight: height_px };
}

/** A rectangle in shares of the trimmed sheet's sides, from its upper left corner; one with bleed begins below 0. */
export interface SheetShare {
  x: number;
  y: number;
  width: number;
  height: number;
}
export const WHOLE_SHEET: SheetShare = { x: 0, y: 0, width: 1, height: 1 };

/** What a proof shows of its sheet. */
export function shareOfSheet(extent: ProofExtent): SheetShare {
  const { x, y, width, height, sheetWidth, sheetHeight } = proofPixels(extent);
  return { x: x / sheetWidth, y: y / sheetHeight, width: width / sheetWidth, height: height / sheetHeight };
}

/** A square of `px` about a place, both in shares of a sheet's sides; moved inside where it would reach beyond. */
export function squareAbout(
  place: { x: number; y: number },
  px: number,
  { width_px, height_px }: { width_px: number; height_px: number }
): SheetShare {
  const [width, height] = [Math.min(1, px / width_px), Math.min(1, px / height_px)];
  const inside = (middle: number, share: number) => Math.min(1 - share, Math.max(0, middle - share / 2));
  return { x: inside(place.x, width), y: inside(place.y, height), width, height };
}

/** How far a proof reaches beyond the trimmed sheet on each side, px; a screen has no bleed. */
export const bleedPixels = ({ size, quality, bleed_mm }: Omit<ProofExtent, 'patch'>): number =>
  'ppi' in size ? Math.round((bleed_mm / MM_PER_INCH) * size.ppi * quality.scale) : 0;

const MINUTE_OF_ARC = Math.PI / 180 / 60;

/** Finest ppi a normal eye resolves at a distance: one minute of arc. Source: normal acuity, any optics text. */
export const resolvedPpi = (distance_m: number): number => MM_PER_INCH / (distance_m * 1000 * Math.tan(MINUTE_OF_ARC));

/** How near the eye has to come to resolve a density, m. */
export const resolvingDistance = (ppi: number): number => MM_PER_INCH / (ppi * 1000 * Math.tan(MINUTE_OF_ARC));

// People step closer; big boards have at least so many pixels, long side, from A1 on; printers gain nothing beyond 300
// (common practice, no source).
const STEP_CLOSER = 1.75;
const BOARD_PX = 5000;
const BOARD_MM = 800;
const MIN_PPI = 72;
const MAX_PPI = 300;
const PPI_STEP = 5;

/** The density that a sheet asks for, seen from a distance, in steps of 5 ppi. */
export function askedPpi(distance_m: number, longSide_mm: number): number {
  const board = longSide_mm >= BOARD_MM ? (BOARD_PX * MM_PER_INCH) / longSide_mm : 0;
  const wished = Math.max(STEP_CLOSER * resolvedPpi(distance_m), board);
  return Math.min(MAX_PPI, Math.max(MIN_PPI, Math.ceil(wished / PPI_STEP) * PPI_STEP));
}

/** `coarse`: its pixels show from there. `wasted`: finer than is seen, even by those who step closer. */
export type Sharpness = 'coarse' | 'fits' | 'wasted';

// More than so many times what is asked for serves nobody.
const WASTE = 1.25;

export function sharpnessOf(ppi: number, distance_m: number, longSide_mm: number): Sharpness {
  if (ppi < Math.min(resolvedPpi(distance_m), MAX_PPI)) return 'coarse';
  return ppi > WASTE * askedPpi(distance_m, longSide_mm) ? 'wasted' : 'fits';
}

/** Pixels an inch of a proof's file; null for a screen. */
export function proofPpi({ size, quality }: { size: SizeChoice; quality: { scale: number } }): number | null {
  return 'ppi' in size ? size.ppi * quality.scale : null;
}
