/** Time and memory of each filter at the sizes of screens, over a film that is made up as it is read, so that none of its memory counts. */
import { spawnSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { CHANNELS, FEATURES, type TileRect, tilesOf } from '../../src/core/film/film';
import type { FilmSource } from '../../src/core/film/store';
import { cleanFilm } from '../../src/core/finishing/denoise/clean-film';
import { guidedFilter } from '../../src/kernel/host/guided-filter';
import { createRandom } from '../../src/core/sampling/random';
import { createNodeFilter } from '../../src/denoise/node-filter';
import { config } from '../../src/server/config';
import { loadKernel } from '../../src/server/render/kernel-file';

const SAMPLES = 16;
const SIZES = [[1280, 720], [1920, 1080], [3840, 2160]] as const;
const NAMES = ['own filter', 'learned'] as const;

/** Grey boards of two reflectances, every sample black or four times too bright. */
class MadeUpFilm implements FilmSource {
  private readonly tiles = new Map<number, TileRect>();
  constructor(width: number, height: number) {
    for (const tile of tilesOf(width, height)) this.tiles.set(tile.index, tile);
  }
  state() {
    return { samples: SAMPLES, done: true, squaredGrain: 0 };
  }
  async read(index: number): Promise<Float32Array> {
    const { x, y, width, height } = this.tiles.get(index)!;
    const random = createRandom(index + 1);
    const data = new Float32Array(width * height * CHANNELS);
    for (let i = 0; i < width * height; i++) {
      const reflectance = (Math.floor((x + (i % width)) / 37) + Math.floor((y + Math.floor(i / width)) / 37)) % 2 ? 0.7 : 0.2;
      for (let c = 0; c < 3; c++) {
        for (let half = 0; half < 2; half++) data[i * CHANNELS + half * 3 + c] = 100 * reflectance * (SAMPLES / 2) * (random() + 0.5);
        data[i * CHANNELS + FEATURES + c] = reflectance * SAMPLES;
      }
      data[i * CHANNELS + FEATURES + 5] = SAMPLES;
    }
    return data;
  }
}

if (process.argv[2]) {
  const [width, height] = process.argv[2].split('x').map(Number) as [number, number];
  const filter = process.argv[3] === 'learned' ? await createNodeFilter(await readFile(config.filterWeights), config.threads) : guidedFilter(await loadKernel());
  const began = performance.now();
  await cleanFilm({ film: new MadeUpFilm(width, height), width, height, white: 100 }, filter, { write: async () => {} }, () => {}, false);
  console.log(`| ${width} x ${height} | ${process.argv[3]} | ${((performance.now() - began) / 1000).toFixed(1)} s | ${(process.resourceUsage().maxRSS / 2 ** 20).toFixed(2)} GB |`);
} else {
  console.log('| size | filter | time | memory of the process |\n| --- | --- | --- | --- |');
  for (const [width, height] of SIZES) for (const name of NAMES) spawnSync(process.execPath, [process.argv[1]!, `${width}x${height}`, name], { stdio: 'inherit' });
}
