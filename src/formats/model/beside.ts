/** Files that came together with a model, found by the names that the model calls them. */
import sharp from 'sharp';
import type { ModelFiles } from './reader';

/** Bytes of the file that `main` calls `name`; null when it did not come. Capitals and folders may differ. */
export function findBeside(files: ModelFiles, main: string, name: string): Uint8Array | null {
  const plain = name.replaceAll('\\', '/').replace(/^(\.\/)+/, '');
  const folder = main.includes('/') ? main.slice(0, main.lastIndexOf('/') + 1) : '';
  const exact = files.get(folder + plain) ?? files.get(plain);
  if (exact) return exact;
  const last = plain.slice(plain.lastIndexOf('/') + 1).toLowerCase();
  for (const [other, bytes] of files) if (other.slice(other.lastIndexOf('/') + 1).toLowerCase() === last) return bytes;
  return null;
}

const AS_THEY_ARE: Record<string, string> = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp' };
const MOST_PX = 16384 * 16384;

/** An image as glTF may hold it: PNG, JPEG and WebP as they are, what else can be read as PNG. Null when it cannot be. */
export async function asTexture(bytes: Uint8Array): Promise<{ image: Uint8Array; mimeType: string } | null> {
  try {
    const image = sharp(bytes, { limitInputPixels: MOST_PX });
    const mimeType = AS_THEY_ARE[(await image.metadata()).format ?? ''];
    if (mimeType) return { image: bytes, mimeType };
    return { image: new Uint8Array(await image.png().toBuffer()), mimeType: 'image/png' };
  } catch {
    return fromTga(bytes);
  }
}

/** Truevision TGA 2.0, which has no signature at its beginning: tried last. */
async function fromTga(bytes: Uint8Array): Promise<{ image: Uint8Array; mimeType: string } | null> {
  const { TGALoader } = await import('three/examples/jsm/loaders/TGALoader.js');
  try {
    const { data, width, height } = new TGALoader().parse(Uint8Array.from(bytes).buffer);
    if (!width || !height || width * height > MOST_PX) return null;
    const image = sharp(data as Uint8Array, { raw: { width, height, channels: 4 } });
    return { image: new Uint8Array(await image.png().toBuffer()), mimeType: 'image/png' };
  } catch {
    return null;
  }
}
