/** Pixels of a texture's image, rgba of 8 bits. Those of 16 bits are rounded to the nearest code, not cut. */
import sharp from 'sharp';

const MOST_PX = 16384 * 16384;

export async function readTexture(image: Uint8Array): Promise<{ width: number; height: number; pixels: Uint8Array }> {
  const source = sharp(image, { limitInputPixels: MOST_PX });
  const deep = (await source.metadata()).depth === 'ushort';
  const { data, info } = await source
    .ensureAlpha()
    .toColourspace(deep ? 'rgb16' : 'srgb')
    .raw({ depth: deep ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  if (!deep) return { width, height, pixels: new Uint8Array(data) };
  const codes = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
  return { width, height, pixels: Uint8Array.from(codes, (code) => Math.round(code / 257)) };
}
