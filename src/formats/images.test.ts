import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readExr } from './exr/read-exr';
import { writeExr } from './exr/write-exr';
import { readHdr } from './hdr/read-hdr';
import { encodeJpeg, encodePng } from './image/encode';
import { unpackZip } from './zip';
import { zipSync } from 'fflate';

const bytesOf = async (source: AsyncGenerator<Uint8Array>) => {
  const parts: Uint8Array[] = [];
  for await (const part of source) parts.push(part);
  return new Uint8Array(Buffer.concat(parts));
};

describe('OpenEXR', () => {
  it.each([[7, 5], [64, 33], [1, 1]])('what is written at %i x %i is read back by another reader, bit for bit, sun discs included', async (width, height) => {
    const value = (x: number, y: number, c: number) => Math.fround(c === 0 ? 1.6e9 : (x * 31 + y * 7 + c) / 13);
    const file = await bytesOf(
      writeExr({
        width,
        height,
        ppi: 200,
        channels: ['R', 'G', 'B', 'A'].map((name, at) => ({ name, at })),
        stride: 4,
        readRows: (y, rows) => Float32Array.from({ length: rows * width * 4 }, (_, i) => value((i >> 2) % width, y + Math.floor((i >> 2) / width), i & 3))
      })
    );
    const image = readExr(file);
    expect([image.width, image.height]).toEqual([width, height]);
    for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) for (let c = 0; c < 3; c++) expect(image.pixels[(y * width + x) * 3 + c]).toBe(value(x, y, c));
  });
  it('refuses what is none, and files with integer channels', async () => {
    expect(() => readExr(new Uint8Array(40))).toThrow(/not an OpenEXR/);
    const file = await bytesOf(writeExr({ width: 4, height: 4, ppi: null, channels: ['R', 'G', 'B'].map((name, at) => ({ name, at })), stride: 3, readRows: (_, rows) => new Float32Array(rows * 12) }));
    // the first channel's pixel type stands behind its one-letter name
    file[Buffer.from(file).indexOf('chlist\0') + 7 + 4 + 2] = 0;
    expect(() => readExr(file)).toThrow(/integer channel/);
  });
});

describe('Radiance HDR', () => {
  const header = '#?RADIANCE\nEXPOSURE=2\nFORMAT=32-bit_rle_rgbe\n\n-Y 1 +X 8\n';
  it('reads flat and run-length rows alike, by (m + 1/2) 2^(e - 136) over the exposure', () => {
    const flat = Buffer.concat([Buffer.from(header), Buffer.from(Array.from({ length: 8 }, () => [128, 64, 32, 129]).flat())]);
    const runs = Buffer.concat([Buffer.from(header), Buffer.from([2, 2, 0, 8, 136, 128, 136, 64, 4, 32, 32, 32, 32, 132, 32, 136, 129])]);
    const a = readHdr(flat);
    expect([...a.pixels.subarray(0, 3)].map((v) => Math.round(v * 1e5) / 1e5)).toEqual([0.50195, 0.25195, 0.12695]);
    expect([...readHdr(runs).pixels]).toEqual([...a.pixels]);
  });
  it.each([
    ['not a picture', 'hello', /does not begin/],
    ['cut off', `${header}ab`, /cut off/],
    ['an unusual order', header.replace('-Y 1 +X 8', '+X 8 -Y 1'), /row order/],
    ['another format', header.replace('32-bit_rle_rgbe', '32-bit_rle_xyze'), /unsupported format/],
    ['absurd size', header.replace('+X 8', '+X 900000000'), /at most/]
  ])('refuses %s', (_, text, expected) => expect(() => readHdr(Buffer.from(text))).toThrow(expected));
});

describe('PNG and JPEG', () => {
  const pixels = Uint8Array.from({ length: 16 * 8 * 4 }, (_, i) => (i % 4 === 3 ? 255 : (i * 37) % 256));
  it('PNG keeps every value, with a profile and without', async () => {
    const raw = await sharp(await encodePng({ width: 16, height: 8, pixels }, 300, true)).raw().toBuffer();
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

describe('ZIP', () => {
  it('unpacks names as names and skips folders and system leftovers', () => {
    const files = unpackZip(zipSync({ 'a/b.gltf': new Uint8Array([1]), '__MACOSX/x': new Uint8Array([2]), '../up.bin': new Uint8Array([3]) }), 1e6);
    expect([...files.keys()].sort()).toEqual(['../up.bin', 'a/b.gltf']);
  });
  it('refuses more than is allowed before unpacking it', () => expect(() => unpackZip(zipSync({ a: new Uint8Array(5000) }), 1000)).toThrow(/unpacks to more/));
});
