/**
 * Writes an OpenEXR file: scanlines, ZIP blocks of 16 rows, channels of 32-bit or 16-bit floats. Rows are asked for block by block
 * and written as they come, so a sheet of any size needs little memory. Source: OpenEXR File Layout and the ZIP
 * compression of its library documentation (bytes split into even and odd halves, then differences, then zlib).
 * Pixels are premultiplied scene-linear Rec. 709; whiteLuminance 1 says that a value of 1 is 1 cd/m2.
 */
import { type FileHandle, open } from 'node:fs/promises';
import { deflateSync } from 'node:zlib';
import { halfBits } from '../../core/math/half';

export interface ExrOptions {
  width: number;
  height: number;
  /** Density for print, or null. */
  ppi: number | null;
  /** Text that the header carries beside the picture's own. */
  attributes?: Record<string, string>;
  /** Names of the channels (layer.CHANNEL for layers), and where each lies in a pixel of `stride` f32. */
  channels: { name: string; at: number; half?: boolean }[];
  stride: number;
  /** Returns `rows` rows from `y` on. */
  readRows(y: number, rows: number): Promise<Float32Array> | Float32Array;
}

/** Rows are asked for in so many. */
export const ROWS_PER_BLOCK = 16;
const ZIP = 3;
const HALF = 1;
const FLOAT = 2;
// The largest half.
const MOST_HALF = 65_504;

export async function writeExr(path: string, options: ExrOptions): Promise<void> {
  const file = await open(path, 'w');
  try {
    await writeInto(file, options);
  } finally {
    await file.close();
  }
}

async function writeInto(file: FileHandle, options: ExrOptions): Promise<void> {
  const { height } = options;
  const header = headerBytes(options, inFileOrder(options));
  const blocks = Math.ceil(height / ROWS_PER_BLOCK);
  // offsets stand before the blocks and are known behind them
  let offset = header.length + blocks * 8;
  const table = Buffer.alloc(blocks * 8);
  await file.write(header);
  await file.write(table);
  for (let block = 0; block < blocks; block++) {
    const packed = await packBlock(options, block * ROWS_PER_BLOCK);
    table.writeBigUInt64LE(BigInt(offset), block * 8);
    offset += packed.length;
    await file.write(packed);
  }
  await file.write(table, 0, table.length, header.length);
}

/** The block that begins at row `y`, as it lies in the file. */
export async function packBlock(options: ExrOptions, y: number): Promise<Buffer> {
  const { width, height, stride } = options;
  const channels = inFileOrder(options);
  const rows = Math.min(ROWS_PER_BLOCK, height - y);
  const values = await options.readRows(y, rows);
  const raw = new Uint8Array(rows * width * channels.reduce((sum, { half }) => sum + (half ? 2 : 4), 0));
  const view = new DataView(raw.buffer);
  let at = 0;
  for (let r = 0; r < rows; r++)
    for (const channel of channels)
      for (let x = 0; x < width; x++) {
        const value = values[(r * width + x) * stride + channel.at]!;
        if (channel.half) view.setUint16(at, halfBits(Math.min(MOST_HALF, value)), true);
        else view.setFloat32(at, value, true);
        at += channel.half ? 2 : 4;
      }
  const packed = deflateSync(predict(raw), { level: 4 });
  const data = packed.length < raw.length ? packed : raw;
  const block = Buffer.alloc(8 + data.length);
  block.writeInt32LE(y, 0);
  block.writeInt32LE(data.length, 4);
  block.set(data, 8);
  return block;
}

/** The file wants channels in the order of their names' bytes. */
const inFileOrder = ({ channels }: ExrOptions) => [...channels].sort((a, b) => (a.name < b.name ? -1 : 1));

function predict(raw: Uint8Array): Uint8Array {
  const n = raw.length;
  const half = (n + 1) >> 1;
  const out = new Uint8Array(n);
  for (let i = 0; i < n; i++) out[(i & 1) * half + (i >> 1)] = raw[i]!;
  for (let i = n - 1; i > 0; i--) out[i] = (out[i]! - out[i - 1]! + 384) & 255;
  return out;
}

function headerBytes({ width, height, ppi, attributes }: ExrOptions, channels: ExrOptions['channels']): Buffer {
  const parts: Buffer[] = [];
  for (const value of Object.values(attributes ?? {}))
    if (/[^\x20-\x7e]/.test(value)) throw new RangeError('writeExr: attributes are plain ASCII');
  const text = (s: string) => Buffer.from(`${s}\0`, 'latin1');
  const int = (v: number) => {
    const b = Buffer.alloc(4);
    b.writeInt32LE(v);
    return b;
  };
  const float = (v: number) => {
    const b = Buffer.alloc(4);
    b.writeFloatLE(v);
    return b;
  };
  const attribute = (name: string, type: string, value: Buffer) =>
    parts.push(text(name), text(type), int(value.length), value);
  parts.push(int(20000630), int(2)); // magic, version 2, single-part scanlines
  attribute(
    'channels',
    'chlist',
    Buffer.concat([
      ...channels.map(({ name, half }) =>
        Buffer.concat([text(name), int(half ? HALF : FLOAT), int(0), int(1), int(1)])
      ),
      Buffer.from([0])
    ])
  );
  // ITU-R BT.709 primaries and D65
  attribute(
    'chromaticities',
    'chromaticities',
    Buffer.concat([0.64, 0.33, 0.3, 0.6, 0.15, 0.06, 0.3127, 0.329].map(float))
  );
  attribute('compression', 'compression', Buffer.from([ZIP]));
  const window = Buffer.concat([int(0), int(0), int(width - 1), int(height - 1)]);
  attribute('dataWindow', 'box2i', window);
  attribute('displayWindow', 'box2i', window);
  attribute('lineOrder', 'lineOrder', Buffer.from([0]));
  attribute('pixelAspectRatio', 'float', float(1));
  attribute('screenWindowCenter', 'v2f', Buffer.concat([float(0), float(0)]));
  attribute('screenWindowWidth', 'float', float(1));
  attribute('whiteLuminance', 'float', float(1));
  if (ppi !== null) attribute('xDensity', 'float', float(ppi));
  for (const [name, value] of Object.entries(attributes ?? {})) attribute(name, 'string', Buffer.from(value, 'latin1'));
  parts.push(Buffer.from([0]));
  return Buffer.concat(parts);
}
