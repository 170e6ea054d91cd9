/**
 * The default tone curve: scene luminance relative to the exposure's white (Lmax of ISO 12232) to displayed luminance,
 * both linear. Our own: y = x^n / (x^n + c), the response of a photoreceptor (Naka and Rushton 1966), a straight line
 * in a film's log-log plot with a shoulder and a toe. n is the slope at mid grey; c puts mid grey (a metered surface,
 * 12.5/120 of white) at L* = 50. Bright saturated colours lose some saturation, as film does, by a small crosstalk
 * before the curve.
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

/** What the curve is to be applied to of a linear colour, channel by channel. */
export function mixTone(out: Float32Array | number[], r: number, g: number, b: number): void {
  const shared = CROSSTALK * (0.2126 * r + 0.7152 * g + 0.0722 * b);
  const own = 1 - CROSSTALK;
  out[0] = own * r + shared;
  out[1] = own * g + shared;
  out[2] = own * b + shared;
}

/** Applies the curve to a linear colour in place of its three values. */
export function toneColor(out: Float32Array | number[], r: number, g: number, b: number): void {
  mixTone(out, r, g, b);
  for (let c = 0; c < 3; c++) out[c] = toneCurve(out[c]!);
}

/** The linear colour that toneColor made of it; what is white or near it has lost its own. */
export function sceneColor([r, g, b]: readonly [number, number, number]): [number, number, number] {
  const back = (y: number) =>
    y <= 0 ? 0 : ((Math.min(y, 0.999) * HALF_SATURATION) / (1 - Math.min(y, 0.999))) ** (1 / SLOPE);
  const seen = [back(r), back(g), back(b)] as const;
  // the crosstalk keeps luminance
  const shared = CROSSTALK * (0.2126 * seen[0] + 0.7152 * seen[1] + 0.0722 * seen[2]);
  const own = (c: number) => Math.max(0, (c - shared) / (1 - CROSSTALK));
  return [own(seen[0]), own(seen[1]), own(seen[2])];
}
