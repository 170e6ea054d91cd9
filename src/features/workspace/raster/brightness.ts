/** How bright a picture is beside a drawing of the same view. */
import { decodeSrgb } from '../../../core/color/srgb';

const LUMINANCE = [0.2126, 0.7152, 0.0722];

/**
 * How many times brighter a picture (rgba8, sRGB, from the top) is than a drawing (rgba8, linear, from the bottom), where
 * the drawing covers something; null where it covers nothing.
 */
export function brightnessRatio(
  picture: Uint8ClampedArray,
  drawing: Uint8Array,
  width: number,
  height: number
): number | null {
  let [seen, drawn] = [0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const p = (y * width + x) * 4;
      const d = ((height - 1 - y) * width + x) * 4;
      if (drawing[d + 3]! < 128) continue;
      for (const [c, weight] of LUMINANCE.entries()) {
        seen += weight * decodeSrgb(picture[p + c]! / 255);
        drawn += (weight * drawing[d + c]!) / 255;
      }
    }
  return drawn > 0 && seen > 0 ? seen / drawn : null;
}
