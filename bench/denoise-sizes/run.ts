/**
 * Time and memory of each filter at the sizes of screens, the grain that is left measured as after a render, over a
 * film that is made up, so that neither its memory nor its reading counts.
 */
import { spawnSync } from 'node:child_process';
import { CHANNELS, FEATURES, TILE_PX, tilesOf } from '../../src/core/film/film';
import type { FilmSource } from '../../src/core/film/store';
import { denoiseFilm } from '../../src/core/finishing/denoise/denoise-film';
import { guidedFilter } from '../../src/kernel/host/guided-filter';
import { createRandom } from '../../src/core/sampling/random';
import { config } from '../../src/server/config';
import { loadKernel } from '../../src/server/render/kernel-file';
import { openFilter } from '../../src/server/render/open-filter';

const SAMPLES = 16;
const SIZES = [
  [1280, 720],
  [1920, 1080],
  [3840, 2160]
] as const;
const NAMES = ['own filter', 'learned'] as const;

/** Grey boards of two reflectances with grain; every tile is the same one, so that making it up takes no time. */
class MadeUpFilm implements FilmSource {
  private readonly floats = new Map<number, number>();
  private readonly data = new Float32Array(TILE_PX * TILE_PX * CHANNELS);

  constructor(width: number, height: number) {
    for (const tile of tilesOf(width, height)) this.floats.set(tile.index, tile.width * tile.height * CHANNELS);
    const random = createRandom(1);
    for (let i = 0; i < TILE_PX * TILE_PX; i++) {
      const reflectance = Math.floor(i / 16) % 2 ? 0.7 : 0.2;
      for (let c = 0; c < 3; c++) {
        for (let half = 0; half < 2; half++)
          this.data[i * CHANNELS + half * 3 + c] = 100 * reflectance * (SAMPLES / 2) * (random() + 0.5);
        this.data[i * CHANNELS + FEATURES + c] = reflectance * SAMPLES;
      }
      this.data[i * CHANNELS + FEATURES + 5] = SAMPLES;
    }
  }
  state() {
    return { samples: SAMPLES, done: true, squaredGrain: 0 };
  }
  async read(index: number): Promise<Float32Array> {
    return this.data.subarray(0, this.floats.get(index)!);
  }
}

if (process.argv[2]) {
  const [width, height] = process.argv[2].split('x').map(Number) as [number, number];
  const filter =
    process.argv[3] === 'learned' ? (await openFilter(config.threads)).filter : guidedFilter(await loadKernel());
  const began = performance.now();
  await denoiseFilm(
    { film: new MadeUpFilm(width, height), width, height, white: 100 },
    filter,
    { write: async () => {} },
    () => {}
  );
  console.log(
    `| ${width} x ${height} | ${process.argv[3]} | ${((performance.now() - began) / 1000).toFixed(1)} ` +
      `s | ${(process.resourceUsage().maxRSS / 2 ** 20).toFixed(2)} GB |`
  );
} else {
  console.log('| size | filter | time | memory of the process |\n| --- | --- | --- | --- |');
  for (const [width, height] of SIZES)
    for (const name of NAMES)
      spawnSync(process.execPath, [process.argv[1]!, `${width}x${height}`, name], { stdio: 'inherit' });
}
