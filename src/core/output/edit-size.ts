/**
 * The size editor: one edit of a size, and what the other values become. Pixels, millimetres and density always agree:
 * pixels are millimetres times density, rounded. On a paper of the list pixels change the density, for its millimetres
 * are given; on a sheet of one's own they change the millimetres; a screen has pixels alone.
 */
import { type Orientation, type Paper } from '../catalogue/papers';
import type { SizeChoice } from '../catalogue/size-choice';
import { MM_PER_INCH } from '../units/units';
import { paperMm, resolveSize } from './size';

/**
 * What lies beyond is cut off to it. Films and files are written piece by piece, so that disk alone limits the rest.
 */
export const MAX_SIDE_PX = 30_000;
export const SIDE_MM = { min: 5, max: 5000 } as const;
/** Beyond the trim, on each side. */
export const MAX_BLEED_MM = 50;
export const PPI = { min: 20, max: 1200 } as const;
/** A sheet has so much when nothing is said. */
const USUAL_PPI = 200;

export type Side = 'width' | 'height';
export type SizeEdit =
  | { side: Side; px: number }
  | { side: Side; mm: number }
  | { ppi: number }
  | { paper: Paper }
  | { turn: Orientation }
  /** A sheet of one's own of the same millimetres, or of so many pixels at the usual density. */
  | { own: true }
  | { screen: true };

/**
 * `locked`: the proportion stays; a paper of the list has its own in any case, so a side of it in mm makes it a sheet
 * of one's own.
 */
export function editSize(size: SizeChoice, edit: SizeEdit, locked: boolean): SizeChoice {
  const now = resolveSize(size);
  const aspect = now.width_px / now.height_px;
  if ('ppi' in edit)
    return 'ppi' in size ? { ...size, ppi: densityFor(size, clamp(edit.ppi, PPI.min, PPI.max)) } : size;
  if ('paper' in edit) {
    const paper = { paper: edit.paper, orientation: orientationOf(size), ppi: now.ppi ?? USUAL_PPI };
    return { ...paper, ppi: densityFor(paper, paper.ppi) };
  }
  if ('turn' in edit) return turned(size, edit.turn);
  if ('own' in edit) {
    if (now.width_mm !== null && now.height_mm !== null && now.ppi !== null)
      return { width_mm: now.width_mm, height_mm: now.height_mm, ppi: now.ppi };
    return sheetOf((now.width_px * MM_PER_INCH) / USUAL_PPI, (now.height_px * MM_PER_INCH) / USUAL_PPI, USUAL_PPI);
  }
  if ('screen' in edit) return { width_px: now.width_px, height_px: now.height_px };
  if ('mm' in edit) {
    if (now.width_mm === null || now.height_mm === null || now.ppi === null) return size;
    const mm = clamp(edit.mm, SIDE_MM.min, SIDE_MM.max);
    const ratio = now.width_mm / now.height_mm;
    const [width, height] =
      edit.side === 'width' ? [mm, locked ? mm / ratio : now.height_mm] : [locked ? mm * ratio : now.width_mm, mm];
    return sheetOf(width, height, now.ppi);
  }
  const px = clamp(Math.round(edit.px), 1, MAX_SIDE_PX);
  if ('paper' in size) {
    const side_mm = paperMm(size.paper, size.orientation)[edit.side === 'width' ? 0 : 1]!;
    // to a thousandth, which moves no side of 5 m by a pixel
    return {
      ...size,
      ppi: densityFor(size, clamp(Math.round((px * MM_PER_INCH * 1000) / side_mm) / 1000, PPI.min, PPI.max))
    };
  }
  if ('width_mm' in size) {
    const mm = (px * MM_PER_INCH) / size.ppi;
    const [width, height] =
      edit.side === 'width'
        ? [mm, locked ? mm / (size.width_mm / size.height_mm) : size.height_mm]
        : [locked ? mm * (size.width_mm / size.height_mm) : size.width_mm, mm];
    return sheetOf(width, height, size.ppi);
  }
  const ratio = edit.side === 'width' ? aspect : 1 / aspect;
  const still = edit.side === 'width' ? size.height_px : size.width_px;
  const side = Math.max(1, Math.floor(locked ? Math.min(px, MAX_SIDE_PX * ratio) : px));
  const other = locked ? clamp(Math.round(side / ratio), 1, MAX_SIDE_PX) : still;
  return edit.side === 'width' ? { width_px: side, height_px: other } : { width_px: other, height_px: side };
}

const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));

/** Hundredths of a millimetre are finer than any cut. */
function sheetOf(width: number, height: number, ppi: number): SizeChoice {
  const of = (mm: number) => Math.round(clamp(mm, SIDE_MM.min, SIDE_MM.max) * 100) / 100;
  const sheet = { width_mm: of(width), height_mm: of(height), ppi };
  return { ...sheet, ppi: densityFor(sheet, ppi) };
}

/** The density, or the most that the limit of a side leaves it. */
function densityFor(size: Extract<SizeChoice, { ppi: number }>, ppi: number): number {
  const [width, height] = 'paper' in size ? paperMm(size.paper, size.orientation) : [size.width_mm, size.height_mm];
  const most = (MAX_SIDE_PX / Math.max(width, height)) * MM_PER_INCH;
  // a side rounds up by half a pixel at most
  return Math.min(ppi, Math.floor(most * 999.9) / 1000);
}

export const orientationOf = (size: SizeChoice): Orientation => {
  if ('paper' in size) return size.orientation;
  const { width_px, height_px } = resolveSize(size);
  return width_px >= height_px ? 'landscape' : 'portrait';
};

function turned(size: SizeChoice, to: Orientation): SizeChoice {
  if (orientationOf(size) === to) return size;
  if ('paper' in size) return { ...size, orientation: to };
  if ('width_mm' in size) return { ...size, width_mm: size.height_mm, height_mm: size.width_mm };
  return { width_px: size.height_px, height_px: size.width_px };
}
