/** The picture behind the model as large as the preview shows it, decoded by the browser; the last one is kept. */
import type { Background } from '../../../core/brief/brief';
import { type BackdropImage, backdropPixels } from '../../../core/finishing/background';

let kept: { key: string; image: BackdropImage } | null = null;

/** Null for backgrounds that are no picture. Sizes of the sheet, px. */
export async function seenBackdrop(
  background: Background,
  width: number,
  height: number
): Promise<BackdropImage | null> {
  if (background.kind !== 'picture') return null;
  const key = `${background.file} ${background.enlarged} ${width} ${height}`;
  if (kept?.key === key) return kept.image;
  const response = await fetch(`/api/backdrops/${background.file}`);
  if (!response.ok)
    throw new Error(
      'the picture behind the model is not there any more; bring it in again or choose another background'
    );
  const whole = await createImageBitmap(await response.blob());
  const size = backdropPixels(whole, background, width, height);
  const canvas = new OffscreenCanvas(size.width, size.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, size.width, size.height);
  whole.close();
  const { data } = context.getImageData(0, 0, size.width, size.height);
  kept = { key, image: { ...size, pixels: new Uint8Array(data.buffer) } };
  return kept.image;
}
