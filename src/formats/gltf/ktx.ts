/** KTX2 textures (Basis Universal) to PNG, by the transcoder that comes with three. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { runInThisContext } from 'node:vm';
import sharp from 'sharp';

interface KtxFile {
  isValid(): boolean;
  getWidth(): number;
  getHeight(): number;
  startTranscoding(): boolean;
  getImageTranscodedSizeInBytes(level: number, layer: number, face: number, format: number): number;
  transcodeImage(
    out: Uint8Array,
    level: number,
    layer: number,
    face: number,
    format: number,
    unused: number,
    a: number,
    b: number
  ): boolean;
  close(): void;
  delete(): void;
}
interface Basis {
  initializeBasis(): void;
  KTX2File: new (bytes: Uint8Array) => KtxFile;
}

const RGBA32 = 13;
let basis: Promise<Basis> | null = null;

async function load(): Promise<Basis> {
  const require = createRequire(import.meta.url);
  const script = require.resolve('three/examples/jsm/libs/basis/basis_transcoder.js');
  const wasmBinary = await readFile(script.replace(/\.js$/, '.wasm'));
  const factory = runInThisContext(
    `(function (module, exports, require, __filename, __dirname) { ${await readFile(script, 'utf8')}; ` +
      `return typeof BASIS === 'undefined' ? module.exports : BASIS; })`
  ) as (...args: unknown[]) => (options: object) => Promise<Basis>;
  const module = { exports: {} };
  const loaded = await factory(module, module.exports, require, script, '.')({ wasmBinary });
  loaded.initializeBasis();
  return loaded;
}

export async function ktxToPng(bytes: Uint8Array): Promise<Uint8Array> {
  basis ??= load();
  const { KTX2File } = await basis;
  const file = new KTX2File(bytes);
  try {
    if (!file.isValid() || !file.startTranscoding()) throw new Error('not a valid KTX2 texture');
    const width = file.getWidth();
    const height = file.getHeight();
    const pixels = new Uint8Array(file.getImageTranscodedSizeInBytes(0, 0, 0, RGBA32));
    if (!file.transcodeImage(pixels, 0, 0, 0, RGBA32, 0, -1, -1))
      throw new Error('the KTX2 texture cannot be transcoded');
    return await sharp(pixels, { raw: { width, height, channels: 4 } })
      .png()
      .toBuffer();
  } finally {
    file.close();
    file.delete();
  }
}
