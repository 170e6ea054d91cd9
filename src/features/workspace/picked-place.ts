/** Places and rectangles on the stage, in shares of the picture, and the colour that is seen there. */
import type { Patch } from '../../core/brief/brief';
import type { Vec3 } from '../../core/math/vec3';

export const inPercent = ({ x, y, width, height }: Patch) => ({
  left: `${100 * x}%`,
  top: `${100 * y}%`,
  width: `${100 * width}%`,
  height: `${100 * height}%`
});

// A smaller rectangle was a press.
const MIN_PATCH_PX = 16;
export const rectIsLarge = ({ width, height }: Patch, width_px: number, height_px: number): boolean =>
  Math.min(width * width_px, height * height_px) >= MIN_PATCH_PX;

/** Within the picture, to whole ten-thousandths. */
export function rectBetween([x0, y0]: readonly [number, number], [x1, y1]: readonly [number, number]): Patch {
  const within = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 1e4) / 1e4;
  const [left, right, top, bottom] = [
    within(Math.min(x0, x1)),
    within(Math.max(x0, x1)),
    within(Math.min(y0, y1)),
    within(Math.max(y0, y1))
  ];
  return {
    x: left,
    y: top,
    width: Math.round((right - left) * 1e4) / 1e4,
    height: Math.round((bottom - top) * 1e4) / 1e4
  };
}

// What a press means is a little place, not a pixel with its grain.
const PATCH_PX = 7;

/** Mean displayed colour about a place of a picture whose corners are 0, 0 and 1, 1. */
export function colorAt(seen: HTMLCanvasElement | HTMLImageElement, x: number, y: number): Vec3 {
  const [width, height] =
    seen instanceof HTMLImageElement ? [seen.naturalWidth, seen.naturalHeight] : [seen.width, seen.height];
  const copy = document.createElement('canvas');
  copy.width = PATCH_PX;
  copy.height = PATCH_PX;
  const context = copy.getContext('2d')!;
  context.drawImage(
    seen,
    Math.round(x * width - PATCH_PX / 2),
    Math.round(y * height - PATCH_PX / 2),
    PATCH_PX,
    PATCH_PX,
    0,
    0,
    PATCH_PX,
    PATCH_PX
  );
  const { data } = context.getImageData(0, 0, PATCH_PX, PATCH_PX);
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < data.length; i += 4) for (const c of [0, 1, 2] as const) sum[c] += data[i + c]! / 255;
  const n = data.length / 4;
  return [sum[0] / n, sum[1] / n, sum[2] / n];
}
