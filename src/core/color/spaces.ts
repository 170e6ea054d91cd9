/**
 * Linear Rec. 709 (the film's primaries, white D65) against CIE XYZ and the wider primaries of Display P3. Sources: ITU-R
 * BT.709, SMPTE EG 432-1 with the white D65, derived as in SMPTE RP 177.
 */
import type { Vec3 } from '../math/vec3';

export const LUMINANCE_REC709: Vec3 = [0.2126, 0.7152, 0.0722];

/** Of the three values from `at` on. */
export const luminanceAt = (values: ArrayLike<number>, at: number): number =>
  0.2126 * values[at]! + 0.7152 * values[at + 1]! + 0.0722 * values[at + 2]!;

export const luminance = (rgb: ArrayLike<number>): number => luminanceAt(rgb, 0);

export function xyzToRec709([x, y, z]: Vec3): Vec3 {
  return [
    3.2404542 * x - 1.5371385 * y - 0.4985314 * z,
    -0.969266 * x + 1.8760108 * y + 0.041556 * z,
    0.0556434 * x - 0.2040259 * y + 1.0572252 * z
  ];
}

export function rec709ToXyz([r, g, b]: Vec3): Vec3 {
  return [
    0.4124564 * r + 0.3575761 * g + 0.1804375 * b,
    0.2126729 * r + 0.7151522 * g + 0.072175 * b,
    0.0193339 * r + 0.119192 * g + 0.9503041 * b
  ];
}

/** Linear light in the primaries of Display P3, in place; what was within Rec. 709 stays within. */
export function toDisplayP3(rgb: Float64Array | Float32Array, at = 0): void {
  const [r, g, b] = [rgb[at]!, rgb[at + 1]!, rgb[at + 2]!];
  rgb[at] = 0.8224619687 * r + 0.1775380313 * g;
  rgb[at + 1] = 0.0331941989 * r + 0.9668058011 * g;
  rgb[at + 2] = 0.0170826307 * r + 0.0723974407 * g + 0.9105199286 * b;
}
