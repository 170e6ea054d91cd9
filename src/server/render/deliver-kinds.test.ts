/** Smaller copies, half floats and layered files, read back by other programs' readers. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Finish } from '../../core/brief/brief';
import { FILE_DEFAULTS } from '../../core/catalogue/file-kinds';
import { AOV_OBJECTS, type FilmLayers, layerCount, layersAt, tileFloats, tilesOf } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { smaller } from '../../core/finishing/float-rows';
import { readExr } from '../../formats/exr/read-exr';
import { writeFilm } from './deliver';
import { developFilm, type FilmView } from './film-rows';

const folder = mkdtempSync(join(tmpdir(), 'kinds-'));
afterAll(() => rmSync(folder, { recursive: true }));
const finish: Finish = BRIEF_DEFAULTS.finish;
const layers: FilmLayers = {
  groups: ['surroundings', 'Shelf lamp'],
  aovs: { objects: ['Hall/Table'], materials: ['oak'] }
};
const [width, height] = [120, 80];

async function filmOf(): Promise<FilmView> {
  const film = new MemoryFilm();
  for (const tile of tilesOf(width, height)) {
    const pixels = tile.width * tile.height;
    const data = new Float32Array(tileFloats(pixels, layerCount(layers)));
    for (let i = 0; i < pixels; i++) {
      const x = tile.x + (i % tile.width);
      const at = layersAt(i, pixels, layerCount(layers));
      for (let c = 0; c < 3; c++) {
        const sky = 20 + x;
        const lamp = c === 2 ? 5 : 30;
        for (const half of [0, 3]) data[i * 16 + half + c] = sky + lamp;
        data[at + c] = sky * 2;
        data[at + 3 + c] = lamp * 2;
      }
      if (x < 60) {
        data[at + 6 + AOV_OBJECTS] = 1;
        data[at + 6 + AOV_OBJECTS + 1] = 2;
      }
    }
    await film.write(tile.index, data, { samples: 2, done: true, squaredGrain: 0 });
  }
  return { film, layers, width, height, white: 400 };
}

describe('smaller copies', () => {
  it('are means in linear light of what each pixel covers, by any factor, and keep the mean', async () => {
    const source = Float32Array.from({ length: 7 * 5 * 4 }, (_, i) => (i % 4 === 3 ? 1 : ((i * 37) % 11) / 11));
    const rows = { width: 7, height: 5, read: async (y: number, n: number) => source.slice(y * 28, (y + n) * 28) };
    const mean = (of: Float32Array, c: number) => {
      const own = of.filter((_, i) => i % 4 === c);
      return own.reduce((a, b) => a + b) / own.length;
    };
    for (const [w, h] of [
      [3, 2],
      [7, 5],
      [1, 1],
      [6, 4]
    ] as const) {
      const copy = await smaller(rows, w, h).read(0, h);
      for (let c = 0; c < 4; c++) expect(mean(copy, c)).toBeCloseTo(mean(source, c), 5);
    }
    // rows asked for one by one are those of the whole
    const whole = await smaller(rows, 3, 2).read(0, 2);
    const second = await smaller(rows, 3, 2).read(1, 1);
    expect([...second]).toEqual([...whole.slice(12)]);
    expect(() => smaller(rows, 8, 5)).toThrow(/at most 7 x 5/);
  });
  it('do not mix the colour of what is clear into what is not', async () => {
    const source = Float32Array.of(1, 0, 0, 1, 0, 1, 0, 0);
    const rows = { width: 2, height: 1, read: async () => source };
    expect([...(await smaller(rows, 1, 1).read(0, 1))]).toEqual([1, 0, 0, 0.5]);
  });
  it('are handed over with the density that keeps the paper’s size', async () => {
    const path = join(folder, 'small.png');
    await writeFilm(path, await filmOf(), { ...FILE_DEFAULTS, kind: 'png', finish, ppi: 100, long_px: 60 });
    expect(await sharp(path).metadata()).toMatchObject({ width: 60, height: 40, density: 50 });
  });
});

describe('OpenEXR', () => {
  it('in half floats keeps radiance to a thousandth and ids whole, in less room', async () => {
    const [whole, half, alone] = ['whole.exr', 'half.exr', 'alone.exr'].map((name) => join(folder, name));
    const view = await filmOf();
    const file = { ...FILE_DEFAULTS, kind: 'exr' as const, finish, ppi: null };
    await writeFilm(whole!, view, file);
    await writeFilm(half!, view, { ...file, half: true });
    await writeFilm(alone!, view, { ...file, pictureOnly: true });
    expect(readFileSync(half!).length).toBeLessThan(0.9 * readFileSync(whole!).length);
    const [a, b] = [readExr(new Uint8Array(readFileSync(whole!))), readExr(new Uint8Array(readFileSync(half!)))];
    expect([b.width, b.height]).toEqual([width, height]);
    for (let i = 0; i < a.pixels.length; i++)
      expect(Math.abs(b.pixels[i]! / Math.max(1e-6, a.pixels[i]!) - 1)).toBeLessThan(1e-3);
    if (!existsSync('/usr/bin/exrheader')) return;
    const header = (path: string) => execFileSync('exrheader', [path], { encoding: 'utf8' });
    expect(header(half!)).toMatch(/R, 16-bit floating-point/);
    expect(header(half!)).toMatch(/object\.id0, 32-bit floating-point/);
    expect(header(whole!)).toMatch(/R, 32-bit floating-point/);
    expect(header(alone!)).not.toMatch(/Shelf lamp|object/);
  });
});

describe('OpenRaster', () => {
  it('holds the picture on top, each light alone and the masks, listed in its stack', async () => {
    const path = join(folder, 'layers.ora');
    const view = await filmOf();
    await writeFilm(path, view, { ...FILE_DEFAULTS, kind: 'ora', finish, ppi: 150 });
    const bytes = readFileSync(path);
    // its kind stands in the first entry, as it is
    expect(bytes.toString('latin1', 30, 54)).toBe('mimetypeimage/openraster');
    const files = unzipSync(bytes);
    const stack = Buffer.from(files['stack.xml']!).toString();
    const names = [...stack.matchAll(/<layer name="([^"]+)" src="([^"]+)"[^>]*visibility="(\w+)"/g)].map((m) =>
      m.slice(1)
    );
    expect(names).toEqual([
      ['Picture', 'data/0.png', 'visible'],
      ['Light: Surroundings', 'data/1.png', 'hidden'],
      ['Light: Shelf lamp', 'data/2.png', 'hidden'],
      ['Mask: part Hall-Table', 'data/3.png', 'hidden']
    ]);
    expect(stack).toContain(`w="${width}" h="${height}" xres="150"`);
    const read = async (name: string) => sharp(files[name]!).ensureAlpha().raw().toBuffer();
    const picture = await read('mergedimage.png');
    expect(Buffer.compare(picture, Buffer.from((await developFilm(view, finish)).pixels))).toBe(0);
    // the lamp is warm and even, the sky grey and brighter to the right
    const lamp = await read('data/2.png');
    expect(lamp[0]).toBeGreaterThan(lamp[2]! + 20);
    const sky = await read('data/1.png');
    expect(Math.abs(sky[0]! - sky[2]!)).toBeLessThanOrEqual(1);
    expect(sky[(width - 1) * 4]).toBeGreaterThan(sky[0]! + 20);
    const mask = await read('data/3.png');
    expect([mask[3], mask[(width - 1) * 4 + 3]]).toEqual([255, 0]);
    expect((await sharp(files['Thumbnails/thumbnail.png']!).metadata()).width).toBeLessThanOrEqual(256);
    // smaller, it keeps the paper's size, and is clear where its picture is
    const clear: Finish = { ...finish, background: { kind: 'clear' } };
    await writeFilm(path, view, { ...FILE_DEFAULTS, kind: 'ora', finish: clear, ppi: 150, long_px: 60 });
    const small = unzipSync(readFileSync(path));
    expect(Buffer.from(small['stack.xml']!).toString()).toContain('w="60" h="40" xres="75"');
    expect((await sharp(small['data/1.png']!).metadata()).hasAlpha).toBe(true);
    if (existsSync('/usr/bin/unzip'))
      expect(execFileSync('unzip', ['-t', path], { encoding: 'utf8' })).toContain('No errors');
  });
});
