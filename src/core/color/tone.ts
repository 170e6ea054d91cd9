/**
 * The default tone curve: scene luminance relative to the exposure's white (Lmax of ISO 12232) to displayed luminance, both
 * linear. Our own: y = x^n / (x^n + c), the response of a photoreceptor (Naka and Rushton 1966), a straight line in a
 * film's log-log plot with a shoulder and a toe. n is the slope at mid grey; c puts mid grey (a metered surface, 12.5/120 of white) at
 * L* = 50. Bright saturated colours lose some saturation, as film does, by a small crosstalk before the curve.
 */
import { luminanceOfLightness } from './lightness';

const SLOPE = 1.36;
const MID_GREY_IN = 0.125 / 1.2;
const MID_GREY_OUT = luminanceOfLightness(50);
const HALF_SATURATION = MID_GREY_IN ** SLOPE * (1 / MID_GREY_OUT - 1);
const CROSSTALK = 0.06;

export function toneCurve(x: number): number {
  if (!(x > 0)) return 0;
  const p = x ** SLOPE;
  return p === Number.POSITIVE_INFINITY ? 1 : p / (p + HALF_SATURATION);
}

/** Applies the curve to a linear colour in place of its three values. */
export function toneColor(out: Float32Array | number[], r: number, g: number, b: number): void {
  const shared = CROSSTALK * (0.2126 * r + 0.7152 * g + 0.0722 * b);
  const own = 1 - CROSSTALK;
  out[0] = toneCurve(own * r + shared);
  out[1] = toneCurve(own * g + shared);
  out[2] = toneCurve(own * b + shared);
}
