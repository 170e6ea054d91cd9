/**
 * Pictures to stand behind a model, over sharp: brought in once, upright and in sRGB; read at the size at which they
 * are seen.
 */
import sharp from 'sharp';
import { ImageRefused } from './refused';

/** Long side that is kept: more than any sheet shows behind a model that hides most of it. */
export const BACKDROP_LARGEST_PX = 8192;
const MAX_PIXELS = 300e6;

/** Formats of pixels alone: a drawing of a few bytes can ask for any number of them. */
const FORMATS = new Set(['png', 'jpeg', 'webp', 'tiff', 'heif']);

/**
 * Any picture that sharp reads as PNG: turned as its EXIF says, its profile converted to sRGB, clear parts white unless
 * they are kept with all bits that it has, reduced when enormous. Throws an ImageRefused.
 */
export async function normaliseBackdrop(
  path: string,
  keepsClear = false
): Promise<{ png: Buffer; width: number; height: number }> {
  const image = sharp(path, { limitInputPixels: MAX_PIXELS });
  const known = await image.metadata().catch(() => null);
  if (!known || !FORMATS.has(known.format))
    throw new ImageRefused('cannot be read as a picture; PNG, JPEG, WebP, TIFF and AVIF can');
  if (known.width * known.height > MAX_PIXELS)
    throw new ImageRefused(
      `has ${Math.round((known.width * known.height) / 1e6)} million pixels; at most ` +
        `${MAX_PIXELS / 1e6} million can be read, so reduce it first`
    );
  try {
    const upright = image.autoOrient();
    const plain = keepsClear ? upright : upright.flatten({ background: '#ffffff' });
    const { data, info } = await plain
      .toColourspace(keepsClear && known.depth === 'ushort' ? 'rgb16' : 'srgb')
      .resize({ width: BACKDROP_LARGEST_PX, height: BACKDROP_LARGEST_PX, fit: 'inside', withoutEnlargement: true })
      .png({ compressionLevel: 6 })
      .toBuffer({ resolveWithObject: true });
    return { png: data, width: info.width, height: info.height };
  } catch {
    throw new ImageRefused('is cut off or damaged; save it again and bring that in');
  }
}

/** Its pixels at a size, rgba8. */
export async function readBackdropPixels(
  path: string,
  size: (picture: { width: number; height: number }) => { width: number; height: number }
): Promise<{ width: number; height: number; pixels: Uint8Array }> {
  const image = sharp(path, { limitInputPixels: MAX_PIXELS }).autoOrient();
  const { autoOrient } = await image.metadata();
  const { width, height } = size({ width: autoOrient.width, height: autoOrient.height });
  const { data } = await image
    .flatten({ background: '#ffffff' })
    .toColourspace('srgb')
    .resize({ width, height, fit: 'fill' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width, height, pixels: data };
}
