/** Display images over sharp: PNG and JPEG with density and sRGB profile in the file. Rgba8 in, encoded sRGB. */
import sharp from 'sharp';

export interface RgbaImage {
  width: number;
  height: number;
  /** rgba8, encoded sRGB, not premultiplied. */
  pixels: Uint8Array;
}

// Largest side that the formats themselves allow.
export const JPEG_LARGEST_PX = 65_535;

const raw = ({ width, height, pixels }: RgbaImage) => sharp(Buffer.from(pixels.buffer, pixels.byteOffset, pixels.byteLength), { raw: { width, height, channels: 4 }, limitInputPixels: false });

export async function encodePng(image: RgbaImage, ppi: number | null, keepAlpha: boolean): Promise<Buffer> {
  let pipeline = raw(image);
  if (!keepAlpha) pipeline = pipeline.removeAlpha();
  pipeline = pipeline.withIccProfile('srgb', { attach: true });
  if (ppi !== null) pipeline = pipeline.withMetadata({ density: ppi });
  const png = await pipeline.png({ compressionLevel: 6 }).toBuffer();
  return ppi === null ? dropPngDensity(png) : png;
}

/** A picture for a screen has no density; the encoder's own default of 25 ppi would only mislead. PNG 3, chunk pHYs. */
export function dropPngDensity(png: Buffer): Buffer {
  const kept = [png.subarray(0, 8)];
  for (let at = 8; at < png.length; ) {
    const end = at + 12 + png.readUInt32BE(at);
    if (png.toString('latin1', at + 4, at + 8) !== 'pHYs') kept.push(png.subarray(at, end));
    at = end;
  }
  return Buffer.concat(kept);
}

export async function encodeJpeg(image: RgbaImage, ppi: number | null): Promise<Buffer> {
  const jpeg = await raw(image).flatten({ background: '#ffffff' }).withIccProfile('srgb', { attach: true }).jpeg({ quality: 94, chromaSubsampling: '4:4:4' }).toBuffer();
  return ppi === null ? jpeg : setJfifDensity(jpeg, ppi);
}

/** JFIF 1.02: density in dots per inch in the APP0 segment, which is put in front when there is none. */
export function setJfifDensity(jpeg: Buffer, ppi: number): Buffer {
  const density = Math.round(ppi);
  if (jpeg[2] === 0xff && jpeg[3] === 0xe0 && jpeg.toString('latin1', 6, 10) === 'JFIF') {
    const out = Buffer.from(jpeg);
    out[13] = 1;
    out.writeUInt16BE(density, 14);
    out.writeUInt16BE(density, 16);
    return out;
  }
  const app0 = Buffer.from([0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 2, 1, density >> 8, density & 255, density >> 8, density & 255, 0, 0]);
  return Buffer.concat([jpeg.subarray(0, 2), app0, jpeg.subarray(2)]);
}
