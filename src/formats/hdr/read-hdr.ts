/**
 * Reads a Radiance RGBE picture (.hdr): run-length encoded or flat, -Y +X order. Values as the file gives them, linear.
 * Source: Ward 1991, Real Pixels (Graphics Gems II), and the file format description of the Radiance reference manual.
 */
import { ImageRefused } from '../image/refused';

export interface FloatImage {
  width: number;
  height: number;
  /** rgb, row 0 on top. */
  pixels: Float32Array;
}

/** The size that its header states, and what goes with it: where the rows begin and what the values are scaled by. */
export function readHdrHeader(bytes: Uint8Array): { width: number; height: number; at: number; scale: number } {
  let at = 0;
  const line = () => {
    let end = at;
    while (end < bytes.length && bytes[end] !== 10 && end - at < 4096) end++;
    const text = Buffer.from(bytes.subarray(at, end)).toString('latin1').trim();
    at = end + 1;
    return text;
  };
  if (!line().startsWith('#?')) throw new ImageRefused('is no Radiance HDR picture');
  let scale = 1;
  for (let text = line(); text !== ''; text = line()) {
    if (at >= bytes.length) throw new ImageRefused('ends inside its header; copy or save it again');
    const exposure = /^EXPOSURE=\s*([\d.eE+-]+)/.exec(text);
    if (exposure) scale /= Number(exposure[1]) || 1;
    if (text.startsWith('FORMAT=') && !text.includes('32-bit_rle_rgbe'))
      throw new ImageRefused(`has the format "${text.slice(7, 47)}", which cannot be read; save it as RGBE`);
  }
  const size = /^-Y\s+(\d+)\s+\+X\s+(\d+)$/.exec(line());
  if (!size) throw new ImageRefused('has an unusual order of rows; save it from top to bottom and left to right');
  const height = Number(size[1]);
  const width = Number(size[2]);
  if (width < 2 || height < 1 || width * height > 2 ** 27)
    throw new ImageRefused(`is ${width} × ${height} px; at most 128 million pixels can be read, so reduce it first`);
  return { width, height, at, scale };
}

/** Throws an ImageRefused. */
export function readHdr(bytes: Uint8Array): FloatImage {
  const { width, height, at: first, scale } = readHdrHeader(bytes);
  let at = first;
  const pixels = new Float32Array(width * height * 3);
  const row = new Uint8Array(width * 4);
  for (let y = 0; y < height; y++) {
    at = readRow(bytes, at, width, row);
    for (let x = 0; x < width; x++) {
      const e = row[x * 4 + 3]!;
      const k = e === 0 ? 0 : scale * 2 ** (e - 136); // (m + 0.5) / 256 x 2^(e - 128)
      for (let c = 0; c < 3; c++) pixels[(y * width + x) * 3 + c] = e === 0 ? 0 : (row[x * 4 + c]! + 0.5) * k;
    }
  }
  return { width, height, pixels };
}

function readRow(bytes: Uint8Array, from: number, width: number, row: Uint8Array): number {
  let at = from;
  const need = (n: number) => {
    if (at + n > bytes.length) throw new ImageRefused('is cut off; copy or save it again');
  };
  need(4);
  const modern =
    width >= 8 &&
    width < 32768 &&
    bytes[at] === 2 &&
    bytes[at + 1] === 2 &&
    ((bytes[at + 2]! << 8) | bytes[at + 3]!) === width;
  if (!modern) {
    for (let x = 0; x < width; ) {
      need(4);
      if (bytes[at] === 1 && bytes[at + 1] === 1 && bytes[at + 2] === 1 && x > 0) {
        for (let n = bytes[at + 3]!; n > 0 && x < width; n--, x++) row.copyWithin(x * 4, (x - 1) * 4, x * 4);
      } else {
        row.set(bytes.subarray(at, at + 4), x * 4);
        x++;
      }
      at += 4;
    }
    return at;
  }
  at += 4;
  for (let c = 0; c < 4; c++) {
    for (let x = 0; x < width; ) {
      need(2);
      const n = bytes[at++]!;
      if (n > 128) {
        const value = bytes[at++]!;
        for (let i = 0; i < n - 128 && x < width; i++) row[x++ * 4 + c] = value;
      } else {
        if (n === 0) throw new ImageRefused('is damaged; save it again');
        need(n);
        for (let i = 0; i < n && x < width; i++) row[x++ * 4 + c] = bytes[at++]!;
      }
    }
  }
  return at;
}
