/** Half floats and their bits. Source: IEEE 754-2019, binary16. */

const single = new Float32Array(1);
const singleBits = new Uint32Array(single.buffer);

/** The bits of the nearest half float, ties to even. */
export function halfBits(value: number): number {
  single[0] = value;
  const bits = singleBits[0]!;
  const sign = (bits >>> 16) & 0x8000;
  const exponent = (bits >>> 23) & 0xff;
  const fraction = bits & 0x7fffff;
  if (exponent === 0xff) return sign | 0x7c00 | (fraction ? 0x200 : 0);
  const e = exponent - 127 + 15;
  if (e >= 31) return sign | 0x7c00;
  if (e <= 0) {
    if (e < -10) return sign;
    // a subnormal: the leading one is written out, and shifted to where a half's fraction begins
    return sign | rounded(fraction | 0x800000, 14 - e);
  }
  return sign | rounded((e << 23) | fraction, 13);
}
/** `bits` shifted right, rounded to nearest, ties to even; a carry goes into the exponent, as it should. */
function rounded(bits: number, shift: number): number {
  const kept = bits >>> shift;
  const rest = bits & ((1 << shift) - 1);
  const half = 1 << (shift - 1);
  return rest > half || (rest === half && kept & 1) ? kept + 1 : kept;
}

let values: Float32Array | null = null;

/** The value of every half by its bits. */
export function halfValues(): Float32Array {
  values ??= Float32Array.from({ length: 65_536 }, (_, bits) => {
    const exponent = (bits >>> 10) & 31;
    const fraction = bits & 1023;
    const size =
      exponent === 31
        ? fraction
          ? Number.NaN
          : Number.POSITIVE_INFINITY
        : exponent === 0
          ? fraction * 2 ** -24
          : (1 + fraction / 1024) * 2 ** (exponent - 15);
    return bits & 0x8000 ? -size : size;
  });
  return values;
}
