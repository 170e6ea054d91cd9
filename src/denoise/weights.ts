/**
 * Reads the tensor archive in which the learned filter's weights come: header, blobs, table of contents.
 * Format: as found in the files (magic 0x41d7, version 2), little-endian; names, dimensions and 16- or 32-bit floats.
 */
export interface Tensor {
  dims: number[];
  /** Order of the dimensions, one letter each: oihw for a convolution, x for a vector. */
  layout: string;
  values: Float32Array;
}

const MAGIC = 0x41d7;
const VERSION = 2;

export function readWeights(bytes: Uint8Array): Map<string, Tensor> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const refuse = (what: string): never => {
    throw new Error(`readWeights: ${what}`);
  };
  if (bytes.length < 12 || view.getUint16(0, true) !== MAGIC) refuse('expected a tensor archive, got something else');
  if (view.getUint8(2) !== VERSION) refuse(`expected version ${VERSION}, got ${view.getUint8(2)}`);
  let at = Number(view.getBigUint64(4, true));
  const text = (length: number) => {
    const s = String.fromCharCode(...bytes.subarray(at, at + length));
    at += length;
    return s;
  };
  const out = new Map<string, Tensor>();
  const count = view.getUint32(at, true);
  at += 4;
  for (let i = 0; i < count; i++) {
    const nameLength = view.getUint16(at, true);
    at += 2;
    const name = text(nameLength);
    const rank = view.getUint8(at++);
    const dims = Array.from({ length: rank }, (_, k) => view.getUint32(at + 4 * k, true));
    at += 4 * rank;
    const layout = text(rank);
    const type = text(1);
    const offset = Number(view.getBigUint64(at, true));
    at += 8;
    const size = dims.reduce((a, b) => a * b, 1);
    if (type !== 'f' && type !== 'h') refuse(`${name}: expected floats, got type ${type}`);
    if (offset + size * (type === 'f' ? 4 : 2) > bytes.length) refuse(`${name}: lies beyond the end of the file`);
    out.set(name, {
      dims,
      layout,
      values: Float32Array.from({ length: size }, (_, k) =>
        type === 'f' ? view.getFloat32(offset + 4 * k, true) : half(view.getUint16(offset + 2 * k, true))
      )
    });
  }
  return out;
}

/** IEEE 754 binary16 to a number. */
function half(bits: number): number {
  const sign = bits & 0x8000 ? -1 : 1;
  const exponent = (bits >> 10) & 31;
  const fraction = bits & 1023;
  if (exponent === 0) return sign * fraction * 2 ** -24;
  if (exponent === 31) return fraction ? Number.NaN : sign * Number.POSITIVE_INFINITY;
  return sign * (1 + fraction / 1024) * 2 ** (exponent - 15);
}
