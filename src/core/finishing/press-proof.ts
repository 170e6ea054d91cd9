/**
 * A picture on a screen as a press will print it: each colour by what the inks of its profile make of it, and where
 * wanted the places marked whose hue or saturation is lost.
 */
import { lookUpColour, type ColourTable } from '../color/table';
import { decodeSrgb, encodeSrgb } from '../color/srgb';
import { lookUp, tableOf } from '../math/curve-table';

/** Steps along each axis of the colours that are tried, encoded sRGB, red fastest. */
export const PRESS_STEPS = 33;

export interface PressColours {
  /** Encoded sRGB of each on paper, PRESS_STEPS^3 * 3. */
  shown: Float32Array;
  /** How far each lies from where it was in the plane of a* and b* of CIE 1976 L*a*b*. */
  lost: Float32Array;
}

export interface PressProof {
  table: ColourTable;
  lost: ColourTable;
}

// A difference of colour that people notice beside each other is about 2; of one that is gone, many times that.
const LOST = 10;
/** Shown in stripes where a colour is lost, linear. */
const MARK = [0.02, 0.02, 0.02] as const;
const LIGHT_MARK = [0.85, 0.85, 0.85] as const;
const STRIPE_PX = 4;

const table = (data: Float32Array): ColourTable => ({
  title: '',
  size: PRESS_STEPS,
  dimensions: 3,
  least: [0, 0, 0],
  most: [1, 1, 1],
  data
});

export const pressProof = ({ shown, lost }: PressColours): PressProof => ({
  table: table(shown),
  lost: table(Float32Array.from({ length: lost.length * 3 }, (_, i) => lost[Math.floor(i / 3)]!))
});

/** Shown colours and losses one after the other, little endian. */
export function packPress({ shown, lost }: PressColours): Uint8Array {
  const both = new Float32Array(shown.length + lost.length);
  both.set(shown);
  both.set(lost, shown.length);
  return new Uint8Array(both.buffer);
}

/** Throws a RangeError when it is not as long as it must be. */
export function unpackPress(bytes: ArrayBuffer): PressColours {
  const colours = PRESS_STEPS ** 3;
  if (bytes.byteLength !== colours * 16)
    throw new RangeError(`unpackPress: expected ${colours * 16} bytes, got ${bytes.byteLength}`);
  return { shown: new Float32Array(bytes, 0, colours * 3), lost: new Float32Array(bytes, colours * 12, colours) };
}

const ENCODED = tableOf(encodeSrgb);
const DECODED = tableOf(decodeSrgb);

/**
 * rgba f32 rows of displayed light as they will look in print, in place; `y`: of the first row. Gives how many of them
 * have lost their colour.
 */
export function showOnPress(
  rows: Float32Array,
  width: number,
  y: number,
  { table, lost }: PressProof,
  marks: boolean
): number {
  const own = new Float64Array(3);
  const loss = new Float64Array(3);
  let count = 0;
  for (let i = 0; i < rows.length; i += 4) {
    for (let c = 0; c < 3; c++) own[c] = lookUp(ENCODED, Math.min(1, Math.max(0, rows[i + c]!)));
    loss.set(own);
    lookUpColour(lost, loss);
    const gone = loss[0]! > LOST;
    if (gone) count++;
    if (gone && marks) {
      const pixel = i >> 2;
      const stripe = Math.floor(((pixel % width) + y + Math.floor(pixel / width)) / STRIPE_PX) % 2;
      for (let c = 0; c < 3; c++) rows[i + c] = (stripe === 0 ? MARK : LIGHT_MARK)[c]!;
      continue;
    }
    lookUpColour(table, own);
    for (let c = 0; c < 3; c++) rows[i + c] = lookUp(DECODED, Math.min(1, Math.max(0, own[c]!)));
  }
  return count;
}
