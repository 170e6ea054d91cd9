/** Textures made of pictures of one's own, over sharp: colour with holes, roughness, normals also from heights. */
import sharp from 'sharp';
import type { SceneTexture } from '../../core/scene/scene';
import { HEIGHT_SHARE, type PictureRequest } from '../../core/scene/surface-pictures';
import { ImageRefused } from './refused';

/** Long side: as fine as a print shows of one surface, and small enough for many. */
const LARGEST_PX = 4096;
const MAX_PIXELS = 300e6;

/** Reads a texture. `pathOf`: where the file of a picture lies. Throws an ImageRefused with the name of what is wrong. */
export async function readSurfacePicture(
  request: PictureRequest,
  pathOf: (file: string) => string
): Promise<SceneTexture> {
  const { kind, color, opacity, roughness, normal, height } = request;
  const name = color ?? opacity ?? roughness ?? normal ?? height ?? '';
  const made = (size: { width: number; height: number }, pixels: Uint8Array, encoded: boolean): SceneTexture => ({
    name,
    width: size.width,
    height: size.height,
    pixels,
    encoded
  });
  if (kind === 'roughness') {
    const grey = await greyOf(pathOf(roughness!));
    // glTF's channels: roughness is green, metal blue
    return made(
      grey,
      Uint8Array.from({ length: grey.values.length * 4 }, (_, i) =>
        i % 4 === 1 ? Math.round(255 * grey.values[i >> 2]!) : 255
      ),
      false
    );
  }
  if (kind === 'normal') {
    if (normal) {
      const picture = await rgbaOf(pathOf(normal));
      return made(picture, picture.pixels, false);
    }
    const grey = await greyOf(pathOf(height!));
    return made(grey, normalsOf(grey), false);
  }
  const picture = color ? await rgbaOf(pathOf(color)) : null;
  if (!opacity) return made(picture!, picture!.pixels, true);
  const holes = await greyOf(pathOf(opacity), picture ?? undefined);
  const pixels = picture?.pixels ?? new Uint8Array(holes.values.length * 4).fill(255);
  for (let i = 0; i < holes.values.length; i++) pixels[i * 4 + 3] = Math.round(255 * holes.values[i]!);
  return made(holes, pixels, true);
}

interface Grey {
  width: number;
  height: number;
  /** 0 to 1, row 0 on top. */
  values: Float32Array;
}

async function rgbaOf(path: string): Promise<{ width: number; height: number; pixels: Uint8Array }> {
  const { data, info } = await opened(path, undefined)
    .ensureAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true })
    .catch(unread);
  return { width: info.width, height: info.height, pixels: new Uint8Array(data) };
}

/** Of 16 bits where the picture has them: heights of 8 bits show steps. */
async function greyOf(path: string, size?: { width: number; height: number }): Promise<Grey> {
  const { data, info } = await opened(path, size)
    .removeAlpha()
    .toColourspace('rgb16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true })
    .catch(unread);
  const codes = new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2);
  const values = new Float32Array(info.width * info.height);
  for (let i = 0; i < values.length; i++) {
    let sum = 0;
    for (let k = 0; k < info.channels; k++) sum += codes[i * info.channels + k]!;
    values[i] = sum / (info.channels * 65_535);
  }
  return { width: info.width, height: info.height, values };
}

const opened = (path: string, size: { width: number; height: number } | undefined) => {
  const image = sharp(path, { limitInputPixels: MAX_PIXELS });
  return size
    ? image.resize({ ...size, fit: 'fill' })
    : image.resize({ width: LARGEST_PX, height: LARGEST_PX, fit: 'inside', withoutEnlargement: true });
};
const unread = (): never => {
  throw new ImageRefused('cannot be read as a picture; bring it in again');
};

/** A tangent space's normals of heights that rise by HEIGHT_SHARE of the width from black to white; y points up. */
export function normalsOf({ width, height, values }: Grey): Uint8Array {
  const out = new Uint8Array(width * height * 4);
  const at = (x: number, y: number) => values[((y + height) % height) * width + ((x + width) % width)]!;
  // of one pixel's way, which is 1 / width of the width
  const rise = (HEIGHT_SHARE * width) / 2;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const dx = (at(x + 1, y) - at(x - 1, y)) * rise;
      const dy = (at(x, y - 1) - at(x, y + 1)) * rise;
      const k = 1 / Math.hypot(dx, dy, 1);
      out.set([code(-dx * k), code(-dy * k), code(k), 255], (y * width + x) * 4);
    }
  }
  return out;
}
const code = (v: number): number => Math.round(127.5 * v + 127.5);
