/**
 * Displayed linear light to the numbers of a file or a screen: 8 or 16 bits, half or single floats, in sRGB or linear.
 *
 * 8-bit codes are dithered by a fixed pattern, so that a smooth gradient shows no bands: between two codes the upper one is
 * taken in as many pixels as the value is nearer to it. Pattern: interleaved gradient noise, Jimenez 2014, SIGGRAPH course
 * on real-time rendering (from memory): neighbouring thresholds differ as much as they can, so it
 * is seen least. The same at every place of a picture, whatever the strips that it is made in.
 */
import { encodeSrgb } from '../color/srgb';
import { lookUp, tableOf } from '../math/curve-table';
import { halfBits } from '../math/half';
import type { FloatRows } from './float-rows';

const ENCODED = tableOf(encodeSrgb);

/** sRGB code of a linear value, 0 to 1. */
const encoded = (linear: number): number => (linear >= 1 ? 1 : linear > 0 ? lookUp(ENCODED, linear) : 0);

/** 0 to 1, below 1. */
export function ditherThreshold(x: number, y: number): number {
  const a = 0.06711056 * x + 0.00583715 * y;
  const b = 52.9829189 * (a - Math.floor(a));
  return b - Math.floor(b);
}

// The pattern of a row is the same for all three channels; it is asked for at every pixel, so a part of it is kept.
const SIDE = 256;
const THRESHOLDS = Float64Array.from({ length: SIDE * SIDE }, (_, i) =>
  ditherThreshold(i % SIDE, Math.floor(i / SIDE))
);

/**
 * rgba f32 rows to rgba8 codes in sRGB, of the columns from `left` to before `right`; `y`: of the first row in its
 * picture. Alpha is rounded, not dithered.
 */
export function encodeSrgb8(
  rows: Float32Array,
  width: number,
  y: number,
  out: Uint8Array | Uint8ClampedArray,
  left = 0,
  right = width
): void {
  const count = rows.length / (width * 4);
  for (let r = 0; r < count; r++) {
    const pattern = ((y + r) % SIDE) * SIDE;
    for (let x = left; x < right; x++) {
      const i = (r * width + x) * 4;
      const threshold = THRESHOLDS[pattern + (x & (SIDE - 1))]!;
      out[i] = Math.floor(encoded(rows[i]!) * 255 + threshold);
      out[i + 1] = Math.floor(encoded(rows[i + 1]!) * 255 + threshold);
      out[i + 2] = Math.floor(encoded(rows[i + 2]!) * 255 + threshold);
      out[i + 3] = Math.round(rows[i + 3]! * 255);
    }
  }
}

export type Depth = '8 bit' | '16 bit' | 'half' | 'float';
export type Transfer = 'sRGB' | 'linear';
/** rgba samples: of 8 bits, of 16 bits or halves by their bits, or floats. */
export type Samples<D extends Depth> = D extends '8 bit' ? Uint8Array : D extends 'float' ? Float32Array : Uint16Array;

export interface EncodedRows<D extends Depth> {
  width: number;
  height: number;
  depth: D;
  transfer: Transfer;
  read(y: number, count: number): Promise<Samples<D>>;
}

export function encodeRows<D extends Depth>(rows: FloatRows, depth: D, transfer: Transfer = 'sRGB'): EncodedRows<D> {
  const { width, height } = rows;
  const read = async (y: number, count: number) => encodeSamples(await rows.read(y, count), width, y, depth, transfer);
  return { width, height, depth, transfer, read };
}

export function encodeSamples<D extends Depth>(
  rows: Float32Array,
  width: number,
  y: number,
  depth: D,
  transfer: Transfer
): Samples<D> {
  return encodeAs[depth](rows, width, y, transfer === 'sRGB' ? encoded : (v) => v) as Samples<D>;
}

type Encode = (rows: Float32Array, width: number, y: number, transfer: (linear: number) => number) => Samples<Depth>;
/** Alpha is no light: it is never encoded. */
const each = (rows: Float32Array, transfer: (linear: number) => number, put: (i: number, value: number) => void) => {
  for (let i = 0; i < rows.length; i++) put(i, i % 4 === 3 ? rows[i]! : transfer(rows[i]!));
};
const encodeAs: Record<Depth, Encode> = {
  '8 bit': (rows, width, y, transfer) => {
    const out = new Uint8Array(rows.length);
    if (transfer === encoded) encodeSrgb8(rows, width, y, out);
    else
      each(rows, transfer, (i, v) => {
        const pixel = i >> 2;
        const threshold = i % 4 === 3 ? 0.5 : ditherThreshold(pixel % width, y + Math.floor(pixel / width));
        out[i] = Math.floor(Math.min(1, Math.max(0, v)) * 255 + threshold);
      });
    return out;
  },
  '16 bit': (rows, _width, _y, transfer) => {
    const out = new Uint16Array(rows.length);
    each(rows, transfer, (i, v) => {
      out[i] = Math.round(Math.min(1, Math.max(0, v)) * 65_535);
    });
    return out;
  },
  half: (rows, _width, _y, transfer) => {
    const out = new Uint16Array(rows.length);
    each(rows, transfer, (i, v) => {
      out[i] = halfBits(v);
    });
    return out;
  },
  float: (rows, _width, _y, transfer) => {
    const out = new Float32Array(rows.length);
    each(rows, transfer, (i, v) => {
      out[i] = v;
    });
    return out;
  }
};
