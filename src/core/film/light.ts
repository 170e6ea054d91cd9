/**
 * The light of a film's pixels, which is all that its development needs: the means of radiance, of what came straight
 * from the surroundings, and the share of that. Seven floats a pixel; radiances in cd/m2, linear Rec. 709.
 */
import { BACKDROP, CHANNELS, EVEN, ODD } from './film';

export const LIGHT = 7;
/** Radiance of the surroundings themselves, and their share, 0 to 1. */
export const BEHIND = 3;
export const BEHIND_SHARE = 6;

/** Of the first `pixels` pixels of a film tile with so many samples, at least one. */
export function lightOfTile(
  tile: Float32Array,
  pixels: number,
  samples: number,
  out = new Float32Array(pixels * LIGHT)
): Float32Array {
  const k = 1 / samples;
  for (let i = 0; i < pixels; i++) {
    const [p, o] = [i * CHANNELS, i * LIGHT];
    for (let c = 0; c < 3; c++) out[o + c] = (tile[p + EVEN + c]! + tile[p + ODD + c]!) * k;
    for (let c = 0; c < 4; c++) out[o + BEHIND + c] = tile[p + BACKDROP + c]! * k;
  }
  return out;
}

/** A grid of pixels with some floats each, shrunk by a whole factor; the last row and column are means of fewer. */
export function shrink(
  data: Float32Array,
  width: number,
  height: number,
  channels: number,
  factor: number
): { data: Float32Array; width: number; height: number } {
  if (factor === 1) return { data, width, height };
  const [w, h] = [Math.ceil(width / factor), Math.ceil(height / factor)];
  const out = new Float32Array(w * h * channels);
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / factor) * w;
    for (let x = 0; x < width; x++) {
      const to = (row + Math.floor(x / factor)) * channels;
      const from = (y * width + x) * channels;
      for (let c = 0; c < channels; c++) out[to + c] = out[to + c]! + data[from + c]!;
    }
  }
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const k = 1 / (Math.min(factor, width - x * factor) * Math.min(factor, height - y * factor));
      const at = (y * w + x) * channels;
      for (let c = 0; c < channels; c++) out[at + c] = out[at + c]! * k;
    }
  return { data: out, width: w, height: h };
}

/** The power of two that brings a film's long side to no more than `largest`; tiles stay whole for up to 64. */
export function shrinkFactor(width: number, height: number, largest: number): number {
  let factor = 1;
  while (Math.max(width, height) / factor > largest) factor *= 2;
  return factor;
}
