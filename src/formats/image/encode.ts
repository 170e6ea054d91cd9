/**
 * Display images over sharp: PNG and JPEG with density and sRGB profile in the file. Rgba8 in, encoded sRGB. Small ones
 * in memory; those to hand over row by row through an uncompressed file beside them, so that none is ever held whole.
 */
import { createReadStream, createWriteStream } from 'node:fs';
import { open, rm, writeFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { crc32 } from 'node:zlib';
import sharp, { type Sharp } from 'sharp';
import type { ImageRows } from '../../core/finishing/image-rows';
import { writeTiffRows } from './tiff-rows';

export interface RgbaImage {
  width: number;
  height: number;
  /** rgba8, encoded sRGB, not premultiplied. */
  pixels: Uint8Array;
}

const raw = ({ width, height, pixels }: RgbaImage) =>
  sharp(Buffer.from(pixels.buffer, pixels.byteOffset, pixels.byteLength), {
    raw: { width, height, channels: 4 },
    limitInputPixels: false
  });

function asPng(image: Sharp, ppi: number | null): Sharp {
  const profiled = image.withIccProfile('srgb', { attach: true });
  return (ppi === null ? profiled : profiled.withMetadata({ density: ppi })).png({ compressionLevel: 6 });
}
// Codes that fit the picture make a file some hundredths smaller, but want all of it in memory, 14 bytes a pixel.
const FITTED_CODES_PX = 20e6;
const asJpeg = (image: Sharp, pixels: number) =>
  image
    .withIccProfile('srgb', { attach: true })
    .jpeg({ quality: 94, chromaSubsampling: '4:4:4', optimiseCoding: pixels <= FITTED_CODES_PX });

export async function encodePng(image: RgbaImage, ppi: number | null, keepAlpha: boolean): Promise<Buffer> {
  const png = await asPng(keepAlpha ? raw(image) : raw(image).flatten({ background: '#ffffff' }), ppi).toBuffer();
  if (ppi === null) forgetPngDensity(png);
  return png;
}

export async function encodeJpeg(image: RgbaImage, ppi: number | null): Promise<Buffer> {
  const jpeg = await asJpeg(raw(image).flatten({ background: '#ffffff' }), image.width * image.height).toBuffer();
  return ppi === null
    ? jpeg
    : Buffer.concat([jpeg.subarray(0, START_OF_IMAGE), jfifSegment(ppi), jpeg.subarray(START_OF_IMAGE)]);
}

export interface ImageFile {
  kind: 'png' | 'jpg';
  ppi: number | null;
  /** PNG alone; else it lies on white. */
  keepAlpha: boolean;
}

/** The files that lie beside one while it is written: uncompressed, and encoded without its density. */
export const besideImage = (path: string): [string, string] => [`${path}.tif`, `${path}.jpg`];

/** Writes it at `path`; while that lasts others lie beside it. */
export async function writeImage(path: string, rows: ImageRows, { kind, ppi, keepAlpha }: ImageFile): Promise<void> {
  const [plain, encoded] = besideImage(path);
  try {
    await writeTiffRows(plain, rows, keepAlpha);
    const image = sharp(plain, { limitInputPixels: false, unlimited: true, sequentialRead: true });
    if (kind === 'png') {
      await asPng(image, ppi).toFile(path);
      if (ppi === null) await changeHead(path, forgetPngDensity);
    } else if (ppi === null) await asJpeg(image, rows.width * rows.height).toFile(path);
    else {
      await asJpeg(image, rows.width * rows.height).toFile(encoded);
      await writeFile(path, Buffer.concat([Buffer.from([0xff, 0xd8]), jfifSegment(ppi)]));
      await pipeline(createReadStream(encoded, { start: START_OF_IMAGE }), createWriteStream(path, { flags: 'a' }));
    }
  } finally {
    await Promise.all(besideImage(path).map((file) => rm(file, { force: true })));
  }
}

// Density stands before the pixels, behind a profile of a few hundred bytes.
const HEAD_BYTES = 65_536;

async function changeHead(path: string, change: (head: Buffer) => void): Promise<void> {
  const file = await open(path, 'r+');
  try {
    const { bytesRead, buffer } = await file.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    const head = buffer.subarray(0, bytesRead);
    change(head);
    await file.write(head, 0, bytesRead, 0);
  } finally {
    await file.close();
  }
}

/**
 * A picture for a screen has no density; the encoder's own default of 25 ppi would only mislead. PNG 3, chunk pHYs:
 * unit 0 says that just the pixels' shape is known.
 */
function forgetPngDensity(png: Buffer): void {
  for (let at = 8; at + 21 <= png.length; at += 12 + png.readUInt32BE(at)) {
    const type = png.toString('latin1', at + 4, at + 8);
    if (type === 'IDAT') return;
    if (type !== 'pHYs') continue;
    png.writeUInt32BE(1, at + 8);
    png.writeUInt32BE(1, at + 12);
    png[at + 16] = 0;
    png.writeUInt32BE(crc32(png.subarray(at + 4, at + 17)), at + 17);
  }
}

// The encoder writes no JFIF segment when it writes a profile.
const START_OF_IMAGE = 2;

/** JFIF 1.02, APP0: density in dots per inch. */
function jfifSegment(ppi: number): Buffer {
  const density = Math.round(ppi);
  return Buffer.from([
    0xff,
    0xe0,
    0,
    16,
    0x4a,
    0x46,
    0x49,
    0x46,
    0,
    1,
    2,
    1,
    density >> 8,
    density & 255,
    density >> 8,
    density & 255,
    0,
    0
  ]);
}
