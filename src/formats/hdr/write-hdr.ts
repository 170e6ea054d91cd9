/**
 * Writes a Radiance RGBE picture (.hdr), run-length encoded, row by row. Source: Ward 1991, Real Pixels (Graphics Gems II),
 * and the file format description of the Radiance reference manual.
 */
import { open } from 'node:fs/promises';
import { Refusal } from '../../core/result/result';

export interface LinearRows {
  width: number;
  height: number;
  /** `count` rows from row `y` on, `stride` numbers a pixel of which the first three are linear Rec. 709. */
  readRows(y: number, count: number): Promise<Float32Array> | Float32Array;
  stride: number;
}

const ROWS = 16;
const MAX_SIDE = 32_767;

/** Throws a Refusal when the picture is wider than the encoding can hold. */
export async function writeHdr(path: string, { width, height, readRows, stride }: LinearRows): Promise<void> {
  if (width < 8 || width > MAX_SIDE)
    throw new Refusal('refused', `a Radiance HDR is 8 to ${MAX_SIDE} px wide, this picture ${width}; take EXR`);
  const file = await open(path, 'w');
  try {
    await file.write(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`);
    for (let y = 0; y < height; y += ROWS) {
      const count = Math.min(ROWS, height - y);
      const rows = await readRows(y, count);
      const parts: Buffer[] = [];
      for (let r = 0; r < count; r++) parts.push(encodeRow(rows, r * width * stride, width, stride));
      await file.write(Buffer.concat(parts));
    }
  } finally {
    await file.close();
  }
}

function encodeRow(values: Float32Array, at: number, width: number, stride: number): Buffer {
  const planes = [0, 1, 2, 3].map(() => new Uint8Array(width));
  for (let x = 0; x < width; x++) {
    const i = at + x * stride;
    const rgb = [0, 1, 2].map((c) => Math.max(0, values[i + c]!) || 0);
    const most = Math.max(...rgb);
    if (most < 1e-32) continue;
    const exponent = Math.floor(Math.log2(most)) + 1;
    const k = 256 / 2 ** exponent;
    for (let c = 0; c < 3; c++) planes[c]![x] = Math.min(255, Math.floor(rgb[c]! * k));
    planes[3]![x] = exponent + 128;
  }
  const out: number[] = [2, 2, width >> 8, width & 255];
  for (const plane of planes) runLengths(plane, out);
  return Buffer.from(out);
}

const LEAST_RUN = 4;
const MOST = 127;

/** A count above 128 and a byte that many times, or a count and so many bytes. */
function runLengths(plane: Uint8Array, out: number[]): void {
  let from = 0;
  const flush = (end: number) => {
    for (; from < end; ) {
      const n = Math.min(MOST + 1, end - from);
      out.push(n, ...plane.subarray(from, from + n));
      from += n;
    }
  };
  for (let x = 0; x < plane.length; ) {
    let run = 1;
    while (x + run < plane.length && run < MOST && plane[x + run] === plane[x]) run++;
    if (run >= LEAST_RUN) {
      flush(x);
      out.push(128 + run, plane[x]!);
      from = x + run;
    }
    x += run;
  }
  flush(plane.length);
}
