/**
 * Rows of rgba codes of 8 or 16 bits as an uncompressed TIFF, written as they come. Baseline TIFF 6, one strip of `ROWS` rows after the
 * other; alpha, where it is kept, unassociated (ExtraSamples 2); else the picture lies on white. At most 4 GiB, which
 * 30,000 px a side need not exceed.
 */
import { open } from 'node:fs/promises';
import type { Codes, ImageRows } from '../../core/finishing/image-rows';

const ROWS = 64;
const SHORT = 3;
const LONG = 4;
const UNDEFINED = 7;
const MAX_BYTES = 2 ** 32 - 1;

export async function writeTiffRows(
  path: string,
  { width, height, read }: ImageRows<Codes>,
  keepAlpha: boolean,
  bits: 8 | 16 = 8,
  profile: Uint8Array | null = null
): Promise<void> {
  const channels = keepAlpha ? 4 : 3;
  const strips = Math.ceil(height / ROWS);
  const stripBytes = (i: number) => Math.min(ROWS, height - i * ROWS) * width * channels * (bits / 8);
  const entries: [tag: number, type: number, values: number[]][] = [
    [256, LONG, [width]],
    [257, LONG, [height]],
    [258, SHORT, Array.from({ length: channels }, () => bits)],
    [259, SHORT, [1]], // no compression
    [262, SHORT, [2]], // RGB
    [273, LONG, []], // where strips begin, below
    [277, SHORT, [channels]],
    [278, LONG, [ROWS]],
    [279, LONG, Array.from({ length: strips }, (_, i) => stripBytes(i))],
    [284, SHORT, [1]], // chunky
    ...(keepAlpha ? [[338, SHORT, [2]] as [number, number, number[]]] : []),
    ...(profile ? [[34_675, UNDEFINED, [...profile]] as [number, number, number[]]] : [])
  ];
  const sizeOf = (type: number, count: number) => (type === UNDEFINED ? 1 : type === SHORT ? 2 : 4) * count;
  const directory = 8 + 2 + entries.length * 12 + 4;
  const beside = entries
    .map(([tag, type, values]) => ({ bytes: tag === 273 ? sizeOf(LONG, strips) : sizeOf(type, values.length) }))
    .filter((e) => e.bytes > 4);
  let offset = directory + beside.reduce((sum, e) => sum + e.bytes + (e.bytes & 1), 0);
  entries[5]![2] = Array.from({ length: strips }, (_, i) => {
    const at = offset;
    offset += stripBytes(i);
    return at;
  });
  if (offset > MAX_BYTES) throw new RangeError(`writeTiffRows: ${width} x ${height} px do not fit into a TIFF`);

  const head = Buffer.alloc(entries[5]![2][0] ?? directory);
  head.write('II*\0', 0, 'latin1');
  head.writeUInt32LE(8, 4);
  head.writeUInt16LE(entries.length, 8);
  let far = directory;
  for (const [i, [tag, type, values]] of entries.entries()) {
    const at = 10 + i * 12;
    const bytes = sizeOf(type, values.length);
    head.writeUInt16LE(tag, at);
    head.writeUInt16LE(type, at + 2);
    head.writeUInt32LE(values.length, at + 4);
    const to = bytes > 4 ? far : at + 8;
    if (bytes > 4) {
      head.writeUInt32LE(far, at + 8);
      far += bytes + (bytes & 1);
    }
    for (const [n, value] of values.entries()) {
      if (type === UNDEFINED) head[to + n] = value;
      else if (type === SHORT) head.writeUInt16LE(value, to + n * 2);
      else head.writeUInt32LE(value, to + n * 4);
    }
  }

  const file = await open(path, 'w');
  try {
    await file.write(head);
    for (let y = 0; y < height; y += ROWS) {
      const rows = await read(y, Math.min(ROWS, height - y));
      const codes = keepAlpha ? rows : withoutAlpha(rows);
      // little endian, as the machines that we run on
      await file.write(new Uint8Array(codes.buffer, codes.byteOffset, codes.byteLength));
    }
  } finally {
    await file.close();
  }
}

/** On white, as paper is. */
function withoutAlpha(rgba: Codes): Codes {
  const most = rgba instanceof Uint8Array ? 255 : 65_535;
  const out =
    rgba instanceof Uint8Array ? new Uint8Array((rgba.length / 4) * 3) : new Uint16Array((rgba.length / 4) * 3);
  for (let from = 0, to = 0; from < rgba.length; from += 4) {
    const cover = rgba[from + 3]!;
    for (let c = 0; c < 3; c++)
      out[to++] =
        cover === most ? rgba[from + c]! : Math.floor((rgba[from + c]! * cover + most * (most - cover)) / most);
  }
  return out;
}
