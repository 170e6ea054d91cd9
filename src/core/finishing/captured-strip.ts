/**
 * A captured image as a strip to turn it by: the whole circle, from 40 degrees below the horizon to 40 above, developed
 * by its own metered exposure.
 */
import { meter, whiteLuminance } from '../brief/exposure';
import { luminanceAt } from '../color/spaces';
import { encodeSrgb } from '../color/srgb';
import { toneColor } from '../color/tone';
import { type ImageLike, reduceImage } from '../lights/captured/reduce';

const WIDEST_PX = 1024;
const HALF_BAND_DEG = 40;

/** rgba of 8 bits, sRGB. */
export interface Strip {
  width: number;
  height: number;
  pixels: Uint8Array;
}

export function developStrip(image: ImageLike): Strip {
  const small = reduceImage(image, WIDEST_PX);
  const top = Math.round((small.height * (90 - HALF_BAND_DEG)) / 180);
  const height = Math.max(1, small.height - 2 * top);
  const { width } = small;
  const band = small.pixels.subarray(top * width * 3, (top + height) * width * 3);
  const white = whiteLuminance(
    meter(Float32Array.from({ length: width * height }, (_, i) => luminanceAt(band, i * 3)))
  );
  const pixels = new Uint8Array(width * height * 4).fill(255);
  const shown = [0, 0, 0];
  for (let i = 0; i < width * height; i++) {
    toneColor(shown, band[i * 3]! / white, band[i * 3 + 1]! / white, band[i * 3 + 2]! / white);
    for (let c = 0; c < 3; c++) pixels[i * 4 + c] = Math.round(255 * encodeSrgb(shown[c]!));
  }
  return { width, height, pixels };
}
