/** Reads an OpenEXR picture as linear rgb, over three's loader, once its header is known to be sound. */
import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import type { FloatImage } from '../hdr/read-hdr';
import { ImageRefused } from '../image/refused';
import { readExrHeader } from './exr-header';

export function readExr(bytes: Uint8Array): FloatImage {
  readExrHeader(bytes);
  const loader = new EXRLoader();
  loader.setDataType(FloatType);
  const { data, width, height } = parse(loader, bytes);
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

function parse(loader: EXRLoader, bytes: Uint8Array): { data: Float32Array; width: number; height: number } {
  try {
    return loader.parse(Uint8Array.from(bytes).buffer) as unknown as ReturnType<typeof parse>;
  } catch {
    throw new ImageRefused(
      'is damaged, or packed in a way that cannot be read; save it again with ZIP or PIZ compression'
    );
  }
}
