import { FILE_DEFAULTS } from '../../core/catalogue/file-kinds';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Finish } from '../../core/brief/brief';
import { tileFloats, tilesOf } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { createRandom } from '../../core/sampling/random';
import { linearBytesPerPixel, writeFilm } from './deliver';
import { developFilm, type FilmView } from './film-rows';

const folder = mkdtempSync(join(tmpdir(), 'deliver-'));
afterAll(() => rmSync(folder, { recursive: true }));
const finish: Finish = BRIEF_DEFAULTS.finish;

/** A film of one sample a pixel, brighter downward, with grain. */
async function filmOf(width: number, height: number): Promise<FilmView> {
  const film = new MemoryFilm();
  const random = createRandom(3);
  for (const tile of tilesOf(width, height)) {
    const data = new Float32Array(tileFloats(tile.width * tile.height, 0)).map(() => (tile.y + 40) * (0.5 + random()));
    await film.write(tile.index, data, { samples: 1, done: true, squaredGrain: 0 });
  }
  return { film, layers: { groups: [], aovs: null }, width, height, white: 400 };
}

describe('a film written to a file', () => {
  it('strip by strip is the picture that is developed as a whole', async () => {
    const view = await filmOf(150, 200);
    const path = join(folder, 'a.png');
    await writeFilm(path, view, { ...FILE_DEFAULTS, kind: 'png', finish, ppi: 200 });
    const { data, info } = await sharp(path).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([150, 200]);
    expect(Buffer.compare(data, Buffer.from((await developFilm(view, finish)).pixels))).toBe(0);
  });
  it('has crop marks round it when they are asked for', async () => {
    const view = await filmOf(150, 200);
    const path = join(folder, 'b.jpg');
    await writeFilm(path, view, { ...FILE_DEFAULTS, kind: 'jpg', finish, ppi: 100, marks: true, bleedPx: 12 });
    const { width, height, density } = await sharp(path).metadata();
    expect(height! - 200).toBe(width! - 150);
    expect(width! - 150).toBeGreaterThan(50);
    expect(density).toBe(100);
  });
  it('as EXR weighs what its strewn strips say', async () => {
    const view = await filmOf(200, 1000);
    const path = join(folder, 'c.exr');
    await writeFilm(path, view, { ...FILE_DEFAULTS, kind: 'exr', finish, ppi: null });
    const said = await linearBytesPerPixel(view, finish);
    expect(Math.abs((said * 200 * 1000) / statSync(path).size - 1)).toBeLessThan(0.05);
    expect(readFileSync(path).readUInt32LE(0)).toBe(20000630);
    // one too low for a strip is weighed as a whole
    const low = await filmOf(90, 30);
    expect(await linearBytesPerPixel(low, finish)).toBeGreaterThan(4);
  });
});
