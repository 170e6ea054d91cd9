/**
 * Coarser copies of a large latitude-longitude image, each half as wide as the one before, down to what light is
 * sampled from. A pixel or a rough surface then sees the mean of what it covers rather than one texel of it: less
 * grain, and no walks through hundreds of megabytes. Source: Williams 1983, Pyramidal Parametrics.
 */
import { type ImageLike, reduceImage } from './reduce';

/** No copy is narrower: 0.18 degrees a texel, a third of the sun. */
const MIN_PX = 2048;

/** How many times an image can be halved, whole texels each time. */
export function levelCount(width: number, height: number): number {
  let count = 0;
  while (width % 2 === 0 && height % 2 === 0 && width / 2 >= MIN_PX) {
    count++;
    width /= 2;
    height /= 2;
  }
  return count;
}

/** Widths that an image can be halved to, the widest first: none would make its light coarser to sample. */
export function coarserWidths(width: number): number[] {
  const widths: number[] = [];
  for (let w = Math.floor(width / 2); w >= MIN_PX; w = Math.floor(w / 2)) widths.push(w);
  return widths;
}

/** Rgb values of an image with all its copies. */
export function valuesWithLevels(width: number, height: number): number {
  let sum = 0;
  for (let level = levelCount(width, height); level >= 0; level--)
    sum += (width / 2 ** level) * (height / 2 ** level) * 3;
  return sum;
}

const made = new WeakMap<Float32Array, ImageLike[]>();

/** The copies without the image itself, finest first; made once for its pixels. */
export function imageLevels(image: ImageLike): ImageLike[] {
  const known = made.get(image.pixels);
  if (known) return known;
  const levels: ImageLike[] = [];
  for (let n = levelCount(image.width, image.height), from = image; n > 0; n--) {
    from = reduceImage(from, from.width / 2);
    levels.push(from);
  }
  made.set(image.pixels, levels);
  return levels;
}

/** What light is sampled from: the coarsest copy, or the image. */
export const coarsest = (image: ImageLike): ImageLike => imageLevels(image).at(-1) ?? image;
