/**
 * Crop marks round a picture with bleed, as printers cut by them: hairlines that point at the corners of the trimmed
 * sheet, on white, outside the bleed. Lengths are common practice, no source: marks 5 mm long, a quarter point thick, 2
 * mm clear of the bleed and at least 3 mm of the trim.
 */
import { MM_PER_INCH } from '../units/units';
import type { Codes, ImageRows } from './image-rows';

export const MARK_MM = 5;
export const CLEAR_MM = 2;
export const MIN_FROM_TRIM_MM = 3;
/** Between the marks and the edge of the page. */
export const EDGE_MM = 2;
export const HAIRLINE_POINTS = 0.25;
const HAIRLINE_INCH = HAIRLINE_POINTS / 72;

/** `bleedPx`: how far the picture reaches beyond the trim on each side. */
export function withCropMarks<C extends Codes>(
  image: ImageRows<C>,
  bleedPx: number,
  ppi: number,
  bits: 8 | 16 = 8
): ImageRows<C> {
  const white = bits === 8 ? 255 : 65_535;
  const px = (mm: number) => Math.round((mm / MM_PER_INCH) * ppi);
  const start = Math.max(bleedPx + px(CLEAR_MM), px(MIN_FROM_TRIM_MM)); // from the trim outward
  const margin = start + px(MARK_MM) + px(EDGE_MM) - bleedPx; // beyond the bleed
  const thick = Math.max(1, Math.round(HAIRLINE_INCH * ppi));
  const [width, height] = [image.width + 2 * margin, image.height + 2 * margin];
  const length = px(MARK_MM);
  const [left, right, top, bottom] = [
    margin + bleedPx,
    width - margin - bleedPx,
    margin + bleedPx,
    height - margin - bleedPx
  ];
  const half = thick >> 1;
  const marks: [x: number, y: number, width: number, height: number][] = [
    ...[left, right].flatMap((x): [number, number, number, number][] => [
      [x - half, top - start - length, thick, length],
      [x - half, bottom + start, thick, length]
    ]),
    ...[top, bottom].flatMap((y): [number, number, number, number][] => [
      [left - start - length, y - half, length, thick],
      [right + start, y - half, length, thick]
    ])
  ];
  return {
    width,
    height,
    async read(from, count) {
      const pixels = (bits === 8 ? new Uint8Array(width * count * 4) : new Uint16Array(width * count * 4)).fill(
        white
      ) as C;
      const [first, end] = [Math.max(from, margin), Math.min(from + count, margin + image.height)];
      if (end > first) {
        const inside = await image.read(first - margin, end - first);
        for (let y = first; y < end; y++)
          pixels.set(
            inside.subarray((y - first) * image.width * 4, (y - first + 1) * image.width * 4),
            ((y - from) * width + margin) * 4
          );
      }
      for (const [x, y, w, h] of marks) {
        for (let j = Math.max(from, y); j < Math.min(from + count, y + h); j++)
          for (let i = x; i < x + w; i++) pixels.set([0, 0, 0, white], ((j - from) * width + i) * 4);
      }
      return pixels;
    }
  };
}
