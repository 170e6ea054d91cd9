/** Renders the little scene under each of the library's surroundings, once at build: node build/library-previews.mjs FOLDER. */
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { BRIEF_DEFAULTS, type Brief, GROUND_DEFAULTS } from '../../core/brief/brief';
import { SURROUNDINGS_LIBRARY } from '../../core/brief/surroundings-library';
import { FinishedFilm, MemoryClean } from '../../core/film/clean';
import { CHANNELS, tilesOf } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { cleanFilm } from '../../core/finishing/denoise/clean-film';
import { developTile } from '../../core/finishing/develop';
import { ballAndCard } from '../../core/scene/ball-and-card';
import { encodePng } from '../../formats/image/encode';
import { guidedFilter } from '../../kernel/host/guided-filter';
import { config } from '../config';
import { loadKernel } from './kernel-file';
import { prepare, run } from './session';

const WIDTH = 216;
const HEIGHT = 122;
const SAMPLES = 32;

// A meter makes grey of what is mostly ground; a small picture is read more easily a little lighter.
const LIGHTER_EV = 0.7;

const folder = process.argv[2]!;
await mkdir(folder, { recursive: true });
const module = await loadKernel();
const scene = ballAndCard();
const filter = guidedFilter(module);
for (const { key, surroundings } of SURROUNDINGS_LIBRARY) {
  const brief: Brief = {
    ...BRIEF_DEFAULTS,
    viewpoint: { position_m: [0.03, 0.19, 0.66], target_m: [0.025, 0.075, 0], up: [0, 1, 0], projection: 'perspective', focal_length_mm: 40, sensor_height_mm: 24, f_number: null, focus_m: null, height_m: null },
    surroundings: surroundings.kind === 'sky' ? { ...surroundings, north_deg: 200 } : surroundings,
    ground: surroundings.kind === 'studio' ? { kind: 'none' } : { ...GROUND_DEFAULTS, reach: 3 },
    exposure: { metered: true },
    size: { width_px: WIDTH, height_px: HEIGHT },
    finish: { ...BRIEF_DEFAULTS.finish, exposure_ev: LIGHTER_EV },
    quality: { ...BRIEF_DEFAULTS.quality, samples: SAMPLES, bounces: 6, firefly: 4 }
  };
  const prepared = await prepare({ scene, brief, captured: null, module, threads: config.threads });
  const film = new MemoryFilm();
  await run(prepared, film, module, config.threads, {});
  const clean = new MemoryClean();
  await cleanFilm({ film, width: WIDTH, height: HEIGHT, white: prepared.white }, filter, clean, () => {}, false);
  const finished = new FinishedFilm(film, clean, 1, tilesOf(WIDTH, HEIGHT));
  const pixels = new Uint8Array(WIDTH * HEIGHT * 4);
  for (const tile of tilesOf(WIDTH, HEIGHT)) {
    const data = await finished.read(tile.index, tile.width * tile.height * CHANNELS);
    developTile(data, tile.width, tile.height, SAMPLES, prepared.white, brief.finish, pixels, (tile.y * WIDTH + tile.x) * 4, WIDTH * 4);
  }
  await writeFile(join(folder, `${key}.png`), await encodePng({ pixels, width: WIDTH, height: HEIGHT }, null, false));
}
