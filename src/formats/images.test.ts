import { FILE_DEFAULTS } from '../core/catalogue/file-kinds';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { readExr } from './exr/read-exr';
import { writeExr } from './exr/write-exr';
import { readHdr } from './hdr/read-hdr';
import { BACKDROP_LARGEST_PX, normaliseBackdrop, readBackdropPixels } from './image/backdrop';
import { ImageRefused } from './image/refused';
import { encodeJpeg, encodePng, writeImage } from './image/encode';
import { unpackZip } from './zip';
import { zipSync } from 'fflate';

const folder = mkdtempSync(join(tmpdir(), 'images-'));
afterAll(() => rmSync(folder, { recursive: true }));
const exrOf = async (options: Parameters<typeof writeExr>[1]) => {
  const path = join(folder, 'file.exr');
  await writeExr(path, options);
  return new Uint8Array(readFileSync(path));
};

describe('OpenEXR', () => {
  it.each([
    [7, 5],
    [64, 33],
    [1, 1]
  ])(
    'what is written at %i x %i is read back by another reader, bit for bit, sun discs included',
    async (width, height) => {
      const value = (x: number, y: number, c: number) => Math.fround(c === 0 ? 1.6e9 : (x * 31 + y * 7 + c) / 13);
      const file = await exrOf({
        width,
        height,
        ppi: 200,
        channels: ['R', 'G', 'B', 'A'].map((name, at) => ({ name, at })),
        stride: 4,
        readRows: (y, rows) =>
          Float32Array.from({ length: rows * width * 4 }, (_, i) =>
            value((i >> 2) % width, y + Math.floor((i >> 2) / width), i & 3)
          )
      });
      const image = readExr(file);
      expect([image.width, image.height]).toEqual([width, height]);
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++)
          for (let c = 0; c < 3; c++) expect(image.pixels[(y * width + x) * 3 + c]).toBe(value(x, y, c));
    }
  );
  it('refuses what is none, and files with integer channels', async () => {
    expect(() => readExr(new Uint8Array(40))).toThrow(/no OpenEXR picture/);
    const file = await exrOf({
      width: 4,
      height: 4,
      ppi: null,
      channels: ['R', 'G', 'B'].map((name, at) => ({ name, at })),
      stride: 3,
      readRows: (_, rows) => new Float32Array(rows * 12)
    });
    // the first channel's pixel type stands behind its one-letter name
    file[Buffer.from(file).indexOf('chlist\0') + 7 + 4 + 2] = 0;
    expect(() => readExr(file)).toThrow(/integer channel/);
  });
});

describe('a hostile OpenEXR file', () => {
  const magic = [0x76, 0x2f, 0x31, 0x01];
  const word = (n: number) => [...new Uint8Array(new Int32Array([n]).buffer)];
  const text = (s: string) => [...Buffer.from(s), 0];
  const window = (width: number, height: number) => [
    ...text('dataWindow'),
    ...text('box2i'),
    ...word(16),
    ...[0, 0, width - 1, height - 1].flatMap(word)
  ];
  const channels = [
    ...text('channels'),
    ...text('chlist'),
    ...word(19),
    ...text('R'),
    ...word(2),
    ...word(0),
    ...word(1),
    ...word(1),
    0
  ];
  it.each([
    ['of eight bytes', [...magic, 2, 0, 0, 0], /damaged inside its header/],
    [
      'with an attribute of negative size',
      [...magic, 2, 0, 0, 0, ...text('a'), ...text('int'), ...word(-5)],
      /damaged/
    ],
    ['with a name without an end', [...magic, 2, 0, 0, 0, ...Array(400).fill(65)], /damaged/],
    ['of deep data', [...magic, 2, 8, 0, 0, 0], /deep data/],
    ['of several parts', [...magic, 2, 16, 0, 0, 0], /several parts/],
    ['of 134 million pixels and more', [...magic, 2, 0, 0, 0, ...channels, ...window(32768, 16384), 0], /at most 128/],
    ['without pixels', [...magic, 2, 0, 0, 0, ...channels, ...window(16384, 8192), 0], /cut off/],
    ['without a size', [...magic, 2, 0, 0, 0, ...channels, 0], /damaged/]
  ])('%s is refused before it is decoded', (_, bytes, expected) => {
    expect(() => readExr(Uint8Array.from(bytes))).toThrow(ImageRefused);
    expect(() => readExr(Uint8Array.from(bytes))).toThrow(expected);
  });
});

describe('Radiance HDR', () => {
  const header = '#?RADIANCE\nEXPOSURE=2\nFORMAT=32-bit_rle_rgbe\n\n-Y 1 +X 8\n';
  it('reads flat and run-length rows alike, by (m + 1/2) 2^(e - 136) over the exposure', () => {
    const flat = Buffer.concat([
      Buffer.from(header),
      Buffer.from(Array.from({ length: 8 }, () => [128, 64, 32, 129]).flat())
    ]);
    const runs = Buffer.concat([
      Buffer.from(header),
      Buffer.from([2, 2, 0, 8, 136, 128, 136, 64, 4, 32, 32, 32, 32, 132, 32, 136, 129])
    ]);
    const a = readHdr(flat);
    expect([...a.pixels.subarray(0, 3)].map((v) => Math.round(v * 1e5) / 1e5)).toEqual([0.50195, 0.25195, 0.12695]);
    expect([...readHdr(runs).pixels]).toEqual([...a.pixels]);
  });
  it.each([
    ['not a picture', 'hello', /no Radiance HDR/],
    ['cut off', `${header}ab`, /cut off/],
    ['an unusual order', header.replace('-Y 1 +X 8', '+X 8 -Y 1'), /order of rows/],
    ['another format', header.replace('32-bit_rle_rgbe', '32-bit_rle_xyze'), /cannot be read; save it as RGBE/],
    ['absurd size', header.replace('+X 8', '+X 900000000'), /at most/]
  ])('refuses %s', (_, text, expected) => expect(() => readHdr(Buffer.from(text))).toThrow(expected));
});

describe('PNG and JPEG', () => {
  const pixels = Uint8Array.from({ length: 16 * 8 * 4 }, (_, i) => (i % 4 === 3 ? 255 : (i * 37) % 256));
  it('PNG keeps every value, with a profile and without', async () => {
    const raw = await sharp(await encodePng({ width: 16, height: 8, pixels }, 300, true))
      .raw()
      .toBuffer();
    expect([...raw]).toEqual([...pixels]);
    expect((await sharp(await encodePng({ width: 16, height: 8, pixels }, 300, true)).metadata()).density).toBe(300);
  });
  it('JPEG says 300 dots an inch in JFIF', async () => {
    const jpeg = await encodeJpeg({ width: 16, height: 8, pixels }, 300);
    expect(jpeg.toString('latin1', 6, 10)).toBe('JFIF');
    expect([jpeg[13], jpeg.readUInt16BE(14), jpeg.readUInt16BE(16)]).toEqual([1, 300, 300]);
    expect((await sharp(jpeg).metadata()).width).toBe(16);
  });
});

describe('a picture written row by row', () => {
  const [width, height] = [211, 150];
  const pixels = Uint8Array.from({ length: width * height * 4 }, (_, i) =>
    i % 4 === 3 ? 255 - ((i >> 2) % 3) * 100 : (i * 37 + (i >> 9)) % 256
  );
  const rows = {
    width,
    height,
    read: async (y: number, count: number) => pixels.subarray(y * width * 4, (y + count) * width * 4)
  };
  const write = async (kind: 'png' | 'jpg', ppi: number | null, keepAlpha: boolean) => {
    const path = join(folder, `rows.${kind}`);
    await writeImage(path, rows, { ...FILE_DEFAULTS, kind, ppi, keepAlpha });
    return readFileSync(path);
  };
  it.each([
    [300, true],
    [null, false],
    [72, false]
  ] as const)('as PNG at %s ppi is byte for byte as what is encoded in memory, alpha %s', async (ppi, keepAlpha) => {
    const [written, whole] = [
      await write('png', ppi, keepAlpha),
      await encodePng({ width, height, pixels }, ppi, keepAlpha)
    ];
    expect(Buffer.compare(await sharp(written).raw().toBuffer(), await sharp(whole).raw().toBuffer())).toBe(0);
    expect((await sharp(written).metadata()).density).toBe((await sharp(whole).metadata()).density);
    expect((await sharp(written).metadata()).icc).toEqual((await sharp(whole).metadata()).icc);
    expect((await sharp(written).metadata()).hasAlpha).toBe(keepAlpha);
  });
  it('without alpha lies on white, as paper is: what is clear, and half of what is half clear', async () => {
    const clear = Uint8Array.from([0, 0, 0, 0, 100, 40, 20, 128, 9, 8, 7, 255, 0, 0, 0, 0]);
    const path = join(folder, 'white.png');
    await writeImage(
      path,
      { width: 4, height: 1, read: async () => clear },
      { ...FILE_DEFAULTS, kind: 'png', ppi: null, keepAlpha: false }
    );
    expect([...(await sharp(path).raw().toBuffer())]).toEqual([255, 255, 255, 177, 147, 137, 9, 8, 7, 255, 255, 255]);
  });
  it('as JPEG says its density in JFIF, and shows what one encoded in memory shows', async () => {
    const [written, whole] = [await write('jpg', 254, false), await encodeJpeg({ width, height, pixels }, 254)];
    expect([written[13], written.readUInt16BE(14), written.readUInt16BE(16)]).toEqual([1, 254, 254]);
    expect(Buffer.compare(await sharp(written).raw().toBuffer(), await sharp(whole).raw().toBuffer())).toBe(0);
  });
  it('leaves nothing beside it, also when it breaks off', async () => {
    const path = join(folder, 'broken.png');
    await expect(
      writeImage(
        path,
        { ...rows, read: () => Promise.reject(new Error('gone')) },
        { ...FILE_DEFAULTS, kind: 'png', ppi: null, keepAlpha: false }
      )
    ).rejects.toThrow('gone');
    expect(readdirSync(folder).filter((name) => name.endsWith('.tif'))).toEqual([]);
  });
});

describe('a picture to stand behind a model', () => {
  const path = join(folder, 'brought.jpg');
  it('is turned as its camera says, and kept in sRGB without clear parts', async () => {
    await writeFile(
      path,
      await sharp({ create: { width: 40, height: 20, channels: 3, background: '#804020' } })
        .withExif({ IFD0: { Orientation: '6' } })
        .withMetadata({ orientation: 6 })
        .jpeg()
        .toBuffer()
    );
    expect(await normaliseBackdrop(path)).toMatchObject({ width: 20, height: 40 });
    await writeFile(
      path,
      await sharp({ create: { width: 4, height: 4, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } })
        .png()
        .toBuffer()
    );
    expect([
      ...(
        await sharp((await normaliseBackdrop(path)).png)
          .raw()
          .toBuffer()
      ).subarray(0, 3)
    ]).toEqual([255, 255, 255]);
  });
  it('is reduced when it is enormous, and read at the size at which it is seen', async () => {
    await writeFile(
      path,
      await sharp({ create: { width: BACKDROP_LARGEST_PX * 2, height: 100, channels: 3, background: '#336699' } })
        .png()
        .toBuffer()
    );
    const { png, width, height } = await normaliseBackdrop(path);
    expect([width, height]).toEqual([BACKDROP_LARGEST_PX, 50]);
    await writeFile(path, png);
    const read = await readBackdropPixels(path, (whole) => ({ width: whole.width / 64, height: 5 }));
    expect([read.width, read.height, ...read.pixels.subarray(0, 4)]).toEqual([128, 5, 0x33, 0x66, 0x99, 255]);
  });
  it('is refused with what it is not', async () => {
    await writeFile(path, 'hello');
    await expect(normaliseBackdrop(path)).rejects.toThrow(/cannot be read as a picture/);
    await writeFile(
      path,
      (
        await sharp({ create: { width: 400, height: 400, channels: 3, background: '#804020' } })
          .png({ compressionLevel: 0 })
          .toBuffer()
      ).subarray(0, 5000)
    );
    await expect(normaliseBackdrop(path)).rejects.toThrow(ImageRefused);
  });
});

describe('ZIP', () => {
  it('unpacks names as names and skips folders and system leftovers', () => {
    const files = unpackZip(
      zipSync({ 'a/b.gltf': new Uint8Array([1]), '__MACOSX/x': new Uint8Array([2]), '../up.bin': new Uint8Array([3]) }),
      1e6
    );
    expect([...files.keys()].sort()).toEqual(['../up.bin', 'a/b.gltf']);
  });
  it('refuses more than is allowed before unpacking it', () =>
    expect(() => unpackZip(zipSync({ a: new Uint8Array(5000) }), 1000)).toThrow(/unpacks to more/));
});
