/**
 * A KTX2 texture of Basis Universal's UASTC kind, written by hand: one level, each 4 x 4 block of a single colour (mode
 * 8). Source: Khronos KTX 2.0 and Data Format specifications; UASTC block layout from memory, checked by transcoding
 * it.
 */
export function uastcKtx(
  blocksWide: number,
  colors: readonly (readonly [number, number, number, number])[]
): Uint8Array {
  const data = 160;
  const bytes = new Uint8Array(data + colors.length * 16);
  const view = new DataView(bytes.buffer);
  bytes.set([0xab, 0x4b, 0x54, 0x58, 0x20, 0x32, 0x30, 0xbb, 0x0d, 0x0a, 0x1a, 0x0a]);
  const words = [0, 1, blocksWide * 4, (colors.length / blocksWide) * 4, 0, 0, 1, 1, 0, 104, 44, 0, 0, 0, 0, 0, 0];
  for (const [i, word] of words.entries()) view.setUint32(12 + i * 4, word, true);
  for (const [i, value] of [data, colors.length * 16, colors.length * 16].entries())
    view.setBigUint64(80 + i * 8, BigInt(value), true);
  // data format descriptor: one block, colour model 166, primaries of BT.709, sRGB, blocks of 4 x 4 in 16 bytes, one
  // sample
  view.setUint32(104, 44, true);
  view.setUint16(112, 2, true);
  view.setUint16(114, 40, true);
  bytes.set([166, 1, 2, 0, 3, 3, 0, 0, 16], 116);
  bytes.set([0, 0, 127, 3], 132);
  view.setUint32(144, 0xffffffff, true);
  colors.forEach((color, block) => {
    // mode 8: five bits 0x17, then eight each of red, green, blue, alpha; what follows helps other formats
    const bits = color.reduce((sum, c, k) => sum | (BigInt(c) << BigInt(5 + 8 * k)), 0x17n);
    view.setBigUint64(data + block * 16, bits, true);
  });
  return bytes;
}
