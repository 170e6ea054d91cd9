/**
 * A curve by table, for where it is asked for at every pixel: 512 steps an octave from 2^-24 to 2^16, straight between
 * them and down to 0. Of a smooth curve the relative error is some 1e-6; the same bits on every machine, as each step
 * is reckoned once by the curve itself.
 */
const MIN_OCTAVE = -24;
const MAX_OCTAVE = 16;
const STEP_BITS = 9;
const BELOW_BITS = 23 - STEP_BITS; // of a number's 23 bits of fraction
const BELOW = 2 ** BELOW_BITS;
const LEAST = 2 ** MIN_OCTAVE;
const MOST = 2 ** MAX_OCTAVE;
const MIN_BITS = (MIN_OCTAVE + 127) * 2 ** 23; // IEEE 754

const single = new Float32Array(1);
const bits = new Uint32Array(single.buffer);

/** The steps of `curve`, which must be 0 at 0. */
export function tableOf(curve: (x: number) => number): Float64Array {
  const steps = 2 ** STEP_BITS;
  return Float64Array.from({ length: (MAX_OCTAVE - MIN_OCTAVE) * steps + 1 }, (_, i) =>
    curve(2 ** (MIN_OCTAVE + Math.floor(i / steps)) * (1 + (i % steps) / steps))
  );
}

/** The curve at `x`; beyond the last step it stays what it is there, below 0 and for no number it is 0. */
export function lookUp(table: Float64Array, x: number): number {
  if (!(x >= LEAST)) return x > 0 ? (table[0]! * x) / LEAST : 0;
  if (x >= MOST) return table[table.length - 1]!;
  single[0] = x;
  const at = bits[0]! - MIN_BITS;
  const step = at >>> BELOW_BITS;
  const low = table[step]!;
  return low + ((table[step + 1]! - low) * (at & (BELOW - 1))) / BELOW;
}

const LOG_STEPS = Float64Array.from({ length: 2 ** STEP_BITS + 1 }, (_, i) => Math.log2(1 + i / 2 ** STEP_BITS));

/** Binary logarithm of a number above 0, to 1e-6; -24 for what is less than the least step. */
export function quickLog2(x: number): number {
  if (!(x >= LEAST)) return MIN_OCTAVE;
  single[0] = x;
  const whole = bits[0]!;
  const step = (whole >>> BELOW_BITS) & (2 ** STEP_BITS - 1);
  const low = LOG_STEPS[step]!;
  return (whole >>> 23) - 127 + low + ((LOG_STEPS[step + 1]! - low) * (whole & (BELOW - 1))) / BELOW;
}
