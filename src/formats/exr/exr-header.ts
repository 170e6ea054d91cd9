/**
 * The header of an OpenEXR picture, walked with limits before a decoder sees the file. Source: OpenEXR file layout, Academy
 * Software Foundation, 2013: magic number, version field, attributes (name, type, size, value) ended by a zero byte.
 */
import { ImageRefused } from '../image/refused';

export interface ExrHeader {
  width: number;
  height: number;
}

const MAX_HEADER_BYTES = 1_000_000;
const LONGEST_NAME = 255;
const DEEP = 0x800;
const MULTIPART = 0x1000;
const INTEGER = 0;
const MAX_PIXELS = 2 ** 27;
const DAMAGED = 'is damaged inside its header; save it again as OpenEXR';

/** Throws an ImageRefused for what is no picture that can be read here. Integer channels are misread by the decoder. */
export function readExrHeader(bytes: Uint8Array): ExrHeader {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 8 || view.getUint32(0, true) !== 20000630) throw new ImageRefused('is no OpenEXR picture');
  const flags = view.getUint32(4, true);
  if (flags & (DEEP | MULTIPART))
    throw new ImageRefused('has deep data or several parts; save it as one flat OpenEXR picture');
  let at = 8;
  const need = (count: number) => {
    if (!(count >= 0) || at + count > bytes.length || at + count > MAX_HEADER_BYTES) throw new ImageRefused(DAMAGED);
  };
  const text = () => {
    let end = at;
    while (end < bytes.length && bytes[end] !== 0 && end - at <= LONGEST_NAME) end++;
    if (bytes[end] !== 0) throw new ImageRefused(DAMAGED);
    const found = Buffer.from(bytes.subarray(at, end)).toString('latin1');
    at = end + 1;
    return found;
  };
  let size: ExrHeader | null = null;
  let channels = 0;
  for (;;) {
    need(1);
    if (bytes[at] === 0) break;
    const name = text();
    text();
    need(4);
    const length = view.getInt32(at, true);
    at += 4;
    need(length);
    const end = at + length;
    if (name === 'channels') {
      while (at < end - 1) {
        const channel = text();
        need(16);
        if (view.getInt32(at, true) === INTEGER)
          throw new ImageRefused(`has an integer channel "${channel.slice(0, 40)}"; save it with float channels only`);
        at += 16;
        channels++;
      }
    } else if (name === 'dataWindow') {
      if (length !== 16) throw new ImageRefused(DAMAGED);
      const [x0, y0, x1, y1] = [0, 4, 8, 12].map((offset) => view.getInt32(at + offset, true)) as [
        number,
        number,
        number,
        number
      ];
      size = { width: x1 - x0 + 1, height: y1 - y0 + 1 };
    }
    at = end;
  }
  if (!size || channels === 0) throw new ImageRefused(DAMAGED);
  const { width, height } = size;
  if (!(width > 0 && height > 0)) throw new ImageRefused(DAMAGED);
  if (width * height > MAX_PIXELS)
    throw new ImageRefused(
      `is ${width} × ${height} px; at most ${MAX_PIXELS / 2 ** 20} million pixels can be read, so reduce it first`
    );
  // the shortest that is possible: an offset of 8 bytes for each block of at most 256 rows
  if (bytes.length - at < 8 * Math.ceil(height / 256)) throw new ImageRefused('is cut off; copy or save it again');
  return size;
}
