/** The sRGB transfer curve between encoded and linear values, both 0 to 1. Source: IEC 61966-2-1. */
export function encodeSrgb(linear: number): number {
  return linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;
}

export function decodeSrgb(encoded: number): number {
  return encoded <= 0.04045 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4;
}

/** Linear value of every 8-bit code. */
export function srgbTable(): Float32Array {
  return Float32Array.from({ length: 256 }, (_, code) => decodeSrgb(code / 255));
}

/** The channels of "#7a8b9c", 0 to 1. */
export const srgbOfHex = (hex: string): [number, number, number] =>
  [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16) / 255) as [number, number, number];
