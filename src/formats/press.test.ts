/**
 * Files in Display P3 and in the inks of a press. The press is the one whose profile libvips brings along (“Chemical
 * proof”, in the public domain); what its inks look like is read back by Little CMS through another path, and by Debian's
 * tools.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { converter } from 'culori';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { FILE_DEFAULTS } from '../core/catalogue/file-kinds';
import { labOfSrgb } from '../core/color/lab';
import { toDisplayP3 } from '../core/color/spaces';
import { decodeSrgb, encodeSrgb } from '../core/color/srgb';
import { packPress, PRESS_STEPS, pressProof, showOnPress, unpackPress } from '../core/finishing/press-proof';
import { readIcc, readPressProfile } from './icc/read-icc';
import { type ImageFile, writeImage } from './image/encode';
import { pressColours } from './image/press';
import { pressIcc } from '../../tests/support/press-icc';

const folder = mkdtempSync(join(tmpdir(), 'sphaera-press-'));
const has = (tool: string) => existsSync(`/usr/bin/${tool}`);
const profile = join(folder, 'press.icc');
let icc: Uint8Array;
const COLOURS: [number, number, number][] = [
  [255, 255, 255],
  [0, 0, 0],
  [128, 128, 128],
  [255, 0, 0],
  [0, 255, 0],
  [0, 0, 255],
  [200, 150, 120],
  [60, 90, 40]
];
const SIDE = 8;
/** Columns of the colours. */
const codes = Uint8Array.from({ length: SIDE * SIDE * 4 }, (_, i) => COLOURS[(i >> 2) % SIDE]![i & 3] ?? 255);
const rows = {
  width: SIDE,
  height: SIDE,
  read: async (y: number, count: number) => codes.subarray(y * SIDE * 4, (y + count) * SIDE * 4)
};
async function written(file: Partial<ImageFile> & Pick<ImageFile, 'kind'>): Promise<string> {
  const path = join(folder, `${JSON.stringify(file).replaceAll(/\W+/g, '-').slice(-60)}.${file.kind}`);
  await writeImage(path, rows, { ...FILE_DEFAULTS, ppi: 300, keepAlpha: false, ...file });
  return path;
}
const firstRow = (data: ArrayLike<number>, channels: number) =>
  Array.from({ length: SIDE }, (_, x) => Array.from({ length: channels }, (_, c) => data[x * channels + c]!));

beforeAll(async () => {
  icc = await pressIcc();
  writeFileSync(profile, icc);
});

describe('Display P3', () => {
  it('has the numbers that culori gives', () => {
    const wide = converter('p3');
    for (const [r, g, b] of COLOURS) {
      const light = new Float64Array([r, g, b].map((c) => decodeSrgb(c / 255)));
      toDisplayP3(light);
      const reference = wide({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
      for (const [i, key] of (['r', 'g', 'b'] as const).entries())
        expect(encodeSrgb(Math.min(1, Math.max(0, light[i]!)))).toBeCloseTo(reference[key], 4);
    }
  });
  it.each(['png', 'tif'] as const)('is named in the %s and its codes are not changed again', async (kind) => {
    const path = await written({ kind, colors: 'p3' });
    expect(firstRow(await sharp(path, { ignoreIcc: true }).raw().toBuffer(), 3)).toEqual(COLOURS);
    expect(readIcc(new Uint8Array((await sharp(path).metadata()).icc!)).space).toBe('RGB');
    // as a reader with a screen of sRGB shows it: the red of P3 is beyond it
    const [, , grey, , , , skin] = firstRow(await sharp(path).toColourspace('srgb').raw().toBuffer(), 3);
    expect(grey).toEqual([128, 128, 128]);
    expect(skin![0]!).toBeGreaterThan(203);
  });
});

describe('the inks of a press', () => {
  it.each(['tif', 'jpg'] as const)(
    'are in the %s with the profile, and lead back to what they look like',
    async (kind) => {
      const path = await written({ kind, colors: 'press', press: profile, quality: 100 });
      const { space, channels, icc: own } = await sharp(path).metadata();
      expect([space, channels, own!.length]).toEqual(['cmyk', 4, icc.length]);
      const raw = await sharp(path, { ignoreIcc: true }).toColourspace('cmyk').raw().toBuffer();
      // paper has no ink; black has most of it
      expect(firstRow(raw, 4)[0]!.every((v) => v <= 2)).toBe(true);
      expect(firstRow(raw, 4)[1]!.reduce((a, b) => a + b)).toBeGreaterThan(400);
      const back = firstRow(await sharp(path).toColourspace('srgb').raw().toBuffer(), 3);
      for (const i of [0, 2, 6, 7]) {
        const near = COLOURS[i]!.map((v) => v / 255) as [number, number, number];
        const seen = back[i]!.map((v) => v / 255) as [number, number, number];
        expect(Math.hypot(...labOfSrgb(...near).map((v, c) => v - labOfSrgb(...seen)[c]!))).toBeLessThan(12);
      }
    }
  );
  it.skipIf(!has('pdfimages'))('are in a PDF with their profile: pdfimages', async () => {
    const path = await written({ kind: 'pdf', colors: 'press', press: profile });
    expect(execFileSync('pdfimages', ['-list', path], { encoding: 'utf8' })).toMatch(/8\s+8\s+icc\s+4\s+8\s+jpeg/);
    execFileSync('pdftoppm', ['-r', '300', '-png', path, join(folder, 'page')]);
    const page = await sharp(join(folder, 'page-1.png')).removeAlpha().raw().toBuffer();
    // white paper and dark black, not the other way round
    expect(page[0]!).toBeGreaterThan(240);
    expect(page[3]!).toBeLessThan(80);
  });
  it('are shown on the screen as the file looks, and what they cannot hold is counted and marked', async () => {
    const colours = await pressColours(profile);
    const packed = packPress(colours);
    const proof = pressProof(unpackPress(packed.buffer as ArrayBuffer));
    const path = await written({ kind: 'tif', colors: 'press', press: profile });
    const file = firstRow(await sharp(path).toColourspace('srgb').raw().toBuffer(), 3);
    const light = Float32Array.from(codes.subarray(0, SIDE * 4), (v, i) => (i % 4 === 3 ? 1 : decodeSrgb(v / 255)));
    const shown = light.slice();
    const lost = showOnPress(shown, SIDE, 0, proof, false);
    // the table lies between its steps
    for (const [x, rgb] of file.entries())
      for (const [c, code] of rgb.entries())
        expect(Math.abs(encodeSrgb(shown[x * 4 + c]!) * 255 - code)).toBeLessThan(4);
    // the three primaries of a screen, no grey and no earthy colour
    expect(lost).toBe(3);
    const marked = light.slice();
    expect(showOnPress(marked, SIDE, 0, proof, true)).toBe(3);
    const [red] = [marked.subarray(12, 15)];
    expect(Math.max(...red) - Math.min(...red)).toBe(0);
    expect([...marked.subarray(8, 11)]).toEqual([...shown.subarray(8, 11)]);
    expect(colours.lost.length).toBe(PRESS_STEPS ** 3);
    expect(() => unpackPress(packed.buffer.slice(4) as ArrayBuffer)).toThrow(/expected 574992 bytes/);
  }, 30_000);
});

describe('a profile', () => {
  it('of a press says its name', () =>
    expect(readPressProfile(icc)).toEqual({ name: 'Chemical proof', kind: 'prtr', space: 'CMYK' }));
  it('that is none, is cut off, or is of a screen is refused by a sentence', async () => {
    expect(() => readPressProfile(new TextEncoder().encode('not a profile'))).toThrow('it is not an ICC profile');
    expect(() => readPressProfile(icc.subarray(0, 5000))).toThrow(
      /says that it has 961644 bytes and has 5000; copy it again/
    );
    const png = await sharp({ create: { width: 1, height: 1, channels: 3, background: '#888' } })
      .withIccProfile('p3')
      .png()
      .toBuffer();
    const screen = new Uint8Array((await sharp(png).metadata()).icc!);
    expect(() => readPressProfile(screen)).toThrow(/it is a profile of RGB colours of a screen/);
    const damaged = icc.slice();
    new DataView(damaged.buffer).setUint32(128, 5_000_000);
    expect(() => readPressProfile(damaged)).toThrow('its list of tags is damaged');
    const beyond = icc.slice();
    new DataView(beyond.buffer).setUint32(128 + 4 + 4, 4_000_000_000);
    expect(() => readPressProfile(beyond)).toThrow(/lies beyond its end/);
  });
});
