/**
 * Reads an OpenEXR picture as linear rgb, over three's loader. ZIP files with an integer channel are refused: that
 * loader misreads them.
 */
import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import type { FloatImage } from '../hdr/read-hdr';

export function readExr(bytes: Uint8Array): FloatImage {
  if (bytes.length < 8 || bytes[0] !== 0x76 || bytes[1] !== 0x2f || bytes[2] !== 0x31 || bytes[3] !== 0x01)
    throw new Error('this is not an OpenEXR picture');
  refuseIntegers(bytes);
  const loader = new EXRLoader();
  loader.setDataType(FloatType);
  const { data, width, height } = loader.parse(Uint8Array.from(bytes).buffer) as unknown as {
    data: Float32Array;
    width: number;
    height: number;
  };
  const channels = data.length / (width * height);
  const pixels = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      // the loader's rows run from the bottom up
      const from = ((height - 1 - y) * width + x) * channels;
      for (let c = 0; c < 3; c++) pixels[(y * width + x) * 3 + c] = data[from + (channels >= 3 ? c : 0)]!;
    }
  }
  return { width, height, pixels };
}

/** Walks the header to the channel list; pixel type 0 is an unsigned integer. */
function refuseIntegers(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 8;
  const text = () => {
    let end = at;
    while (end < bytes.length && bytes[end] !== 0) end++;
    const s = Buffer.from(bytes.subarray(at, end)).toString('latin1');
    at = end + 1;
    return s;
  };
  while (at < bytes.length && bytes[at] !== 0) {
    const name = text();
    text();
    const size = view.getInt32(at, true);
    at += 4;
    const end = at + size;
    if (name === 'channels') {
      while (at < end - 1) {
        const channel = text();
        if (view.getInt32(at, true) === 0)
          throw new Error(`the OpenEXR picture has an integer channel "${channel}"; save it with float channels only`);
        at += 16;
      }
    }
    at = end;
  }
}
