/** Files to hand over, read back by the libraries and by Debian's tools: the same pixels, density, profile and words. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { type AboutPicture, FILE_DEFAULTS } from '../core/catalogue/file-kinds';
import { readHdr } from './hdr/read-hdr';
import { writeHdr } from './hdr/write-hdr';
import { type ImageFile, writeImage } from './image/encode';
import { zipOf } from './write-zip';

const folder = mkdtempSync(join(tmpdir(), 'sphaera-deliveries-'));
const has = (tool: string) => existsSync(`/usr/bin/${tool}`);
const WIDTH = 75;
const HEIGHT = 130;
/** Smooth, so that files with loss keep it. */
const codeAt = (i: number, most: number): number => {
  const [x, y, c] = [(i >> 2) % WIDTH, Math.floor((i >> 2) / WIDTH), i & 3];
  return c === 3 ? most : Math.round((most * (c === 0 ? x / WIDTH : c === 1 ? y / HEIGHT : 0.25)) as number);
};
const of8 = Uint8Array.from({ length: WIDTH * HEIGHT * 4 }, (_, i) => codeAt(i, 255));
const of16 = Uint16Array.from({ length: WIDTH * HEIGHT * 4 }, (_, i) => codeAt(i, 65_535));
const rows = <C extends Uint8Array | Uint16Array>(codes: C) => ({
  width: WIDTH,
  height: HEIGHT,
  read: async (y: number, count: number) => codes.subarray(y * WIDTH * 4, (y + count) * WIDTH * 4) as C
});
const ABOUT: AboutPicture = {
  title: 'East window, Reading & room',
  author: 'A. <Test>',
  date: '2026-11-30T12:00:00.000Z',
  brief: '{"version":2}'
};
async function written(file: Partial<ImageFile> & Pick<ImageFile, 'kind'>): Promise<string> {
  const path = join(folder, `picture-${JSON.stringify(file).replaceAll(/\W+/g, '-').slice(0, 60)}.${file.kind}`);
  const whole = { ...FILE_DEFAULTS, ppi: 300, keepAlpha: false, ...file };
  await writeImage(path, rows(file.bits === 16 ? of16 : of8), whole);
  return path;
}
const rgbOf = (codes: ArrayLike<number>) => Array.from(codes).filter((_, i) => i % 4 !== 3);
const worst = (a: ArrayLike<number>, b: ArrayLike<number>): number =>
  Math.max(...Array.from(a, (v, i) => Math.abs(v - b[i]!)));

describe('a picture to hand over', () => {
  it.each(['png', 'tif'] as const)('keeps all 16 bits as %s', async (kind) => {
    const path = await written({ kind, bits: 16 });
    const { data, info } = await sharp(path, { ignoreIcc: true })
      .raw({ depth: 'ushort' })
      .toColourspace('rgb16')
      .toBuffer({ resolveWithObject: true });
    expect(info.channels).toBe(3);
    expect((await sharp(path).metadata()).depth).toBe('ushort');
    expect(worst(new Uint16Array(data.buffer, data.byteOffset, data.length / 2), rgbOf(of16))).toBe(0);
  });
  it('is the same to the code as TIFF of 8 bits, with its density and profile', async () => {
    const path = await written({ kind: 'tif' });
    expect(worst(await sharp(path).raw().toBuffer(), rgbOf(of8))).toBe(0);
    const { density, icc } = await sharp(path).metadata();
    expect(density).toBe(300);
    expect(icc!.length).toBeGreaterThan(300);
  });
  it.each([
    ['webp', 6],
    ['avif', 5],
    ['jpg', 4]
  ] as const)('differs little as %s, less the better it is asked for', async (kind, most) => {
    const [fine, coarse] = [await written({ kind, quality: 95 }), await written({ kind, quality: 30 })];
    const pixels = async (path: string) => sharp(path).removeAlpha().toColourspace('srgb').raw().toBuffer();
    expect(worst(await pixels(fine), rgbOf(of8))).toBeLessThanOrEqual(most);
    expect(readFileSync(coarse).length).toBeLessThan(readFileSync(fine).length);
  });
  it('of a side that a format cannot hold is refused by a sentence', async () => {
    const wide = { width: 17_000, height: 2, read: async () => new Uint8Array(17_000 * 2 * 4) };
    const file = { ...FILE_DEFAULTS, kind: 'webp' as const, ppi: null, keepAlpha: false };
    await expect(writeImage(join(folder, 'wide.webp'), wide, file)).rejects.toThrow(
      /WebP holds at most 16,383 px a side, this picture has 17000 × 2; take PNG or TIFF/
    );
    const huge = { width: 30_000, height: 30_000, read: async () => new Uint16Array(0) };
    const deep = { ...file, kind: 'tif' as const, bits: 16 as const };
    await expect(writeImage(join(folder, 'huge.tif'), huge, deep)).rejects.toThrow(
      /more than 4 GiB.*take 8 bits or EXR/
    );
  });
  it.each(['png', 'jpg', 'tif', 'webp', 'avif'] as const)('says title, author and brief in XMP as %s', async (kind) => {
    const xmp = (await sharp(await written({ kind, about: ABOUT })).metadata()).xmp!.toString('utf8');
    expect(xmp).toContain('East window, Reading &amp; room');
    expect(xmp).toContain('A. &lt;Test&gt;');
    expect(xmp).toContain('{&quot;version&quot;:2}');
    expect((await sharp(await written({ kind })).metadata()).xmp).toBeUndefined();
  });
});

describe('Debian’s tools read back', () => {
  const run = (tool: string, ...args: string[]) => execFileSync(tool, args, { encoding: 'utf8' });
  it.skipIf(!has('tiffinfo'))('a TIFF of 16 bits: tiffinfo', async () => {
    const text = run('tiffinfo', await written({ kind: 'tif', bits: 16 }));
    expect(text).toMatch(/Bits\/Sample: 16/);
    expect(text).toMatch(/Resolution: 300, 300 pixels\/inch/);
    expect(text).toMatch(/ICC Profile: <present>/);
  });
  it.skipIf(!has('pngcheck'))('a PNG of 16 bits: pngcheck', async () => {
    expect(run('pngcheck', '-v', await written({ kind: 'png', bits: 16 }))).toMatch(/75 x 130 image, 48-bit RGB/);
  });
  it.skipIf(!has('exiftool'))('title and author: exiftool', async () => {
    const text = run('exiftool', '-Title', '-Creator', '-CreateDate', await written({ kind: 'jpg', about: ABOUT }));
    expect(text).toMatch(/Title\s*: East window, Reading & room/);
    expect(text).toMatch(/Creator\s*: A. <Test>/);
    expect(text).toMatch(/Create Date\s*: 2026:11:30 12:00:00/);
  });
  it.skipIf(!has('pdfinfo'))(
    'a PDF of true size with trim, bleed and the picture in it: pdfinfo, pdfimages',
    async () => {
      // 3 mm of bleed at 300 ppi are 35 px, which leave a trim of 5 by 60 px
      const path = await written({ kind: 'pdf', page: { bleedPx: 35, marks: true }, about: ABOUT });
      const text = run('pdfinfo', '-box', path);
      const box = (name: string) =>
        text
          .match(new RegExp(`${name}:\\s+([\\d.]+)\\s+([\\d.]+)\\s+([\\d.]+)\\s+([\\d.]+)`))!
          .slice(1)
          .map(Number);
      const trim = box('TrimBox');
      expect(trim[2]! - trim[0]!).toBeCloseTo((5 / 300) * 72, 1);
      expect(trim[3]! - trim[1]!).toBeCloseTo((60 / 300) * 72, 1);
      const bleed = box('BleedBox');
      expect(bleed[2]! - bleed[0]!).toBeCloseTo((75 / 300) * 72, 1);
      expect(text).toMatch(/Title:\s+East window, Reading & room/);
      expect(run('pdfimages', '-list', path)).toMatch(/75\s+130\s+(rgb|icc)\s+3\s+8\s+jpeg/);
      const plain = run('pdfinfo', await written({ kind: 'pdf', ppi: null }));
      // at 96 to the inch
      expect(plain).toMatch(/Page size:\s+56.25 x 97.5 pts/);
    }
  );
});

describe('a Radiance HDR', () => {
  it('keeps linear light within the 8 bits of its mantissa, far beyond white, read back by our reader', async () => {
    const linear = Float32Array.from({ length: WIDTH * HEIGHT * 5 }, (_, i) => {
      const x = Math.floor(i / 5) % WIDTH;
      // even parts, which are packed, beside ramps
      return i % 5 < 3 ? (x < 30 ? 0.5 : 2 ** ((x - 50) / 3)) * (1 + (i % 5)) : 9;
    });
    const path = join(folder, 'linear.hdr');
    await writeHdr(path, {
      width: WIDTH,
      height: HEIGHT,
      stride: 5,
      readRows: (y, count) => linear.subarray(y * WIDTH * 5, (y + count) * WIDTH * 5)
    });
    const { width, height, pixels } = readHdr(new Uint8Array(readFileSync(path)));
    expect([width, height]).toEqual([WIDTH, HEIGHT]);
    for (let i = 0; i < WIDTH * HEIGHT; i++) {
      const most = linear[i * 5 + 2]!;
      for (let c = 0; c < 3; c++)
        expect(Math.abs(pixels[i * 3 + c]! - linear[i * 5 + c]!)).toBeLessThanOrEqual(most / 128);
    }
    expect(readFileSync(path).length).toBeLessThan(WIDTH * HEIGHT * 4);
  });
});

describe('a set as a ZIP', () => {
  it('holds its files as they are, by their names', async () => {
    const files = ['one.txt', 'zwei ä.txt'].map((name, i) => {
      const path = join(folder, `in-zip-${i}`);
      writeFileSync(path, `${name} `.repeat(30_000));
      return { path, name };
    });
    const bytes = new Uint8Array(await new Response(zipOf(files)).arrayBuffer());
    const out = unzipSync(bytes);
    expect(Object.keys(out)).toEqual(['one.txt', 'zwei ä.txt']);
    expect(Buffer.from(out['zwei ä.txt']!).toString()).toBe('zwei ä.txt '.repeat(30_000));
  });
});
