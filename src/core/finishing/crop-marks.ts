/**
 * Crop marks round a picture with bleed, as printers cut by them: hairlines that point at the corners of the trimmed sheet, on white, outside the bleed.
 * Lengths are common practice, no source: marks 5 mm long, a quarter point thick, 2 mm clear of the bleed and at least 3 mm of the trim.
 */
import { MM_PER_INCH } from '../units/units';

export interface MarkedImage {
  width: number;
  height: number;
  /** rgba8. */
  pixels: Uint8Array;
}

const MARK_MM = 5;
const CLEAR_MM = 2;
const LEAST_FROM_TRIM_MM = 3;
const EDGE_MM = 2;
const HAIRLINE_INCH = 0.25 / 72;

/** `bleedPx`: how far the picture reaches beyond the trim on each side. */
export function withCropMarks(image: MarkedImage, bleedPx: number, ppi: number): MarkedImage {
  const px = (mm: number) => Math.round((mm / MM_PER_INCH) * ppi);
  const start = Math.max(bleedPx + px(CLEAR_MM), px(LEAST_FROM_TRIM_MM)); // from the trim outward
  const margin = start + px(MARK_MM) + px(EDGE_MM) - bleedPx; // beyond the bleed
  const thick = Math.max(1, Math.round(HAIRLINE_INCH * ppi));
  const [width, height] = [image.width + 2 * margin, image.height + 2 * margin];
  const pixels = new Uint8Array(width * height * 4).fill(255);
  for (let y = 0; y < image.height; y++) pixels.set(image.pixels.subarray(y * image.width * 4, (y + 1) * image.width * 4), ((y + margin) * width + margin) * 4);
  const fill = (x: number, y: number, w: number, h: number) => {
    for (let j = y; j < y + h; j++) for (let i = x; i < x + w; i++) pixels.set([0, 0, 0, 255], (j * width + i) * 4);
  };
  const length = px(MARK_MM);
  const [left, right, top, bottom] = [margin + bleedPx, width - margin - bleedPx, margin + bleedPx, height - margin - bleedPx];
  const half = thick >> 1;
  for (const x of [left, right]) {
    fill(x - half, top - start - length, thick, length);
    fill(x - half, bottom + start, thick, length);
  }
  for (const y of [top, bottom]) {
    fill(left - start - length, y - half, length, thick);
    fill(right + start, y - half, length, thick);
  }
  return { width, height, pixels };
}
