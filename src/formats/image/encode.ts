/**
 * Display images over sharp, with density, profile and what they say of themselves in the file. Codes in. Small ones in
 * memory; those to hand over row by row through an uncompressed file beside them, so that none is ever held whole.
 */
import { createReadStream, createWriteStream } from 'node:fs';
import { open, rm, writeFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { crc32 } from 'node:zlib';
import sharp, { type Sharp } from 'sharp';
import { type FileColours, FILE_KIND_NAMES, type FileOptions, QUALITY_DEFAULT } from '../../core/catalogue/file-kinds';
import { Refusal } from '../../core/result/result';
import type { Codes, ImageRows } from '../../core/finishing/image-rows';
import { xmpOf } from './about';
import { toPress } from './press';
import { writeTiffRows } from './tiff-rows';
import { SCREEN_PPI, writePdf } from './write-pdf';

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
  return (ppi === null ? profiled : profiled.withDensity(ppi)).png({ compressionLevel: 6 });
}
// Codes that fit the picture make a file some hundredths smaller, but want all of it in memory, 14 bytes a pixel.
const FITTED_CODES_PX = 20e6;
const asJpeg = (image: Sharp, pixels: number, quality = QUALITY_DEFAULT) =>
  image.jpeg({ quality, chromaSubsampling: '4:4:4', optimiseCoding: pixels <= FITTED_CODES_PX });

export async function encodePng(image: RgbaImage, ppi: number | null, keepAlpha: boolean): Promise<Buffer> {
  const png = await asPng(keepAlpha ? raw(image) : raw(image).flatten({ background: '#ffffff' }), ppi).toBuffer();
  if (ppi === null) forgetPngDensity(png);
  return png;
}

export async function encodeJpeg(image: RgbaImage, ppi: number | null): Promise<Buffer> {
  const flat = raw(image).flatten({ background: '#ffffff' }).withIccProfile('srgb', { attach: true });
  const jpeg = await asJpeg(flat, image.width * image.height).toBuffer();
  return ppi === null
    ? jpeg
    : Buffer.concat([jpeg.subarray(0, START_OF_IMAGE), jfifSegment(ppi), jpeg.subarray(START_OF_IMAGE)]);
}

export interface ImageFile extends Pick<FileOptions, 'bits' | 'quality' | 'about' | 'colors' | 'press'> {
  kind: 'png' | 'jpg' | 'tif' | 'webp' | 'avif' | 'pdf';
  ppi: number | null;
  /** Else it lies on white. */
  keepAlpha: boolean;
  /** Of a PDF: px beyond the trim, and whether crop marks are drawn. */
  page?: { bleedPx: number; marks: boolean };
}

/** The files that lie beside one while it is written: uncompressed, and encoded without its density. */
export const besideImage = (path: string): [string, string] => [`${path}.tif`, `${path}.jpg`];

/** Of the uncompressed file beside it, which has a head too. */
const MOST_PLAIN_BYTES = 2 ** 32 - 2 ** 20;
/** Sides that the formats can hold. */
const MOST_PX: Partial<Record<ImageFile['kind'], number>> = { webp: 16_383, avif: 16_384, jpg: 65_500, pdf: 65_500 };

/**
 * Writes it at `path`; while that lasts others lie beside it. Codes are those of the colours of the file; for a press
 * they are of sRGB, and `press` is the path of its profile, which makes inks of them. Throws a Refusal when the format
 * cannot hold its size.
 */
export async function writeImage(path: string, rows: ImageRows<Codes>, file: ImageFile): Promise<void> {
  const { kind, ppi, keepAlpha, bits, quality, about, colors, press } = file;
  const most = MOST_PX[kind];
  if (most !== undefined && Math.max(rows.width, rows.height) > most)
    throw new Refusal(
      'refused',
      `${FILE_KIND_NAMES[kind]} holds at most ${most.toLocaleString('en')} px a side, this picture has ` +
        `${rows.width} × ${rows.height}; take PNG or TIFF`
    );
  if (rows.width * rows.height * (keepAlpha ? 4 : 3) * (bits / 8) > MOST_PLAIN_BYTES)
    throw new Refusal(
      'refused',
      `${rows.width} × ${rows.height} px of ${bits} bits take more than 4 GiB on the way; take ` +
        `${bits === 16 ? '8 bits or ' : ''}EXR`
    );
  const [plain, encoded] = besideImage(path);
  try {
    // attaching a profile would take 16 bits through a conversion of 8, and other colours through one that they have
    // behind them: it comes with the file beside it instead
    const attached = colors === 'p3' || bits === 16;
    await writeTiffRows(plain, rows, keepAlpha, bits, attached ? await profileOf(colors) : null);
    const unlimited = { limitInputPixels: false, unlimited: true, sequentialRead: true } as const;
    const kept = () => sharp(plain, { ...unlimited, ignoreIcc: true }).keepIccProfile();
    const opened =
      colors === 'press'
        ? toPress(sharp(plain, unlimited), press!)
        : attached
          ? bits === 16
            ? kept().toColourspace('rgb16')
            : kept()
          : sharp(plain, unlimited).withIccProfile('srgb', { attach: true });
    const image = about ? opened.withXmp(xmpOf(about)) : opened;
    if (kind === 'png') {
      await (ppi === null ? image : image.withDensity(ppi)).png({ compressionLevel: 6 }).toFile(path);
      if (ppi === null) await changeHead(path, forgetPngDensity);
    } else if (kind === 'tif') {
      const perMm = (ppi ?? SCREEN_PPI) / 25.4;
      await image
        .tiff({ compression: 'deflate', predictor: 'horizontal', xres: perMm, yres: perMm, resolutionUnit: 'inch' })
        .toFile(path);
    } else if (kind === 'webp') await image.webp({ quality, smartSubsample: true, effort: 4 }).toFile(path);
    else if (kind === 'avif') await image.avif({ quality, chromaSubsampling: '4:4:4', effort: 3 }).toFile(path);
    else if (kind === 'pdf') {
      await asJpeg(opened, rows.width * rows.height, quality).toFile(encoded);
      const page = file.page ?? { bleedPx: 0, marks: false };
      const { icc: profile = null } = await sharp(encoded).metadata();
      await writePdf(path, { jpeg: encoded, profile, width: rows.width, height: rows.height, ppi, ...page, about });
    } else if (ppi === null) await asJpeg(image, rows.width * rows.height, quality).toFile(path);
    else {
      await asJpeg(image, rows.width * rows.height, quality).toFile(encoded);
      await writeFile(path, Buffer.concat([Buffer.from([0xff, 0xd8]), jfifSegment(ppi)]));
      await pipeline(createReadStream(encoded, { start: START_OF_IMAGE }), createWriteStream(path, { flags: 'a' }));
    }
  } finally {
    await Promise.all(besideImage(path).map((beside) => rm(beside, { force: true })));
  }
}

// Density stands before the pixels, behind a profile of a few hundred bytes.
const HEAD_BYTES = 65_536;

/** Those that sharp brings along, as it attaches them. */
const profiles = new Map<string, Promise<Uint8Array>>();
function profileOf(colors: FileColours): Promise<Uint8Array> {
  const name = colors === 'p3' ? 'p3' : 'srgb';
  const known = profiles.get(name) ?? readProfile(name);
  profiles.set(name, known);
  return known;
}
async function readProfile(name: 'srgb' | 'p3'): Promise<Uint8Array> {
  const pixel = { create: { width: 1, height: 1, channels: 3 as const, background: '#808080' } };
  const png = await sharp(pixel).withIccProfile(name, { attach: true }).png().toBuffer();
  return new Uint8Array((await sharp(png).metadata()).icc!);
}

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
