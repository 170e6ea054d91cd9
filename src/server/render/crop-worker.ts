/** The process that renders a piece of a picture; started by crop.ts. */
import { readFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { Brief } from '../../core/brief/brief';
import { FinishedFilm, MemoryClean } from '../../core/film/clean';
import { tilesOf } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { cleanFilm } from '../../core/finishing/denoise/clean-film';
import { shareOfSheet } from '../../core/output/size';
import { readScene } from '../../formats/gltf/read-scene';
import { encodePng } from '../../formats/image/encode';
import { config } from '../config';
import { contentPath } from '../files/content-store';
import { findPack, packKey } from '../files/pack-store';
import { answerOnce } from './ask-worker';
import { readBackdrop } from './backdrop-file';
import { readCapturedOf } from './captured-file';
import type { CropJob, CropSaid } from './crop';
import { developFilm } from './deliver';
import { loadKernel } from './kernel-file';
import { openFilter } from './open-filter';
import { readWebs } from './photometric-files';
import { DARK } from './prepare';
import { prepare, run } from './session';

// Nobody waits longer for a look; what is there by then is shown.
const MOST_MINUTES = 0.75;

async function crop({ model, brief }: CropJob): Promise<CropSaid> {
  const module = await loadKernel();
  const scene = await readScene(new Uint8Array(await readFile(contentPath('models', model))));
  const limited: Brief = { ...brief, quality: { ...brief.quality, minutes: MOST_MINUTES } };
  const prepared = await prepare({
    scene,
    brief: limited,
    captured: await readCapturedOf(brief.surroundings),
    webs: await readWebs(brief),
    module,
    threads: config.threads,
    findPack: (input, build) => findPack(packKey(model, input), build)
  });
  if (prepared.dark) return { ok: false, message: DARK };
  const film = new MemoryFilm();
  const end = await run(prepared, film, module, config.threads, {});
  const { width, height } = prepared.settings;
  const within = shareOfSheet(brief);
  const view = { film, layers: prepared.layers, width, height, white: prepared.white, within };
  const { denoise, background } = brief.finish;
  const clean = new MemoryClean();
  if (denoise > 0) await cleanFilm(view, (await openFilter(config.threads)).filter, clean, () => {}, false);
  const shown = denoise > 0 ? new FinishedFilm(film, clean, denoise, tilesOf(width, height)) : film;
  const image = await developFilm(
    { ...view, film: shown },
    brief.finish,
    await readBackdrop(background, { width, height, within })
  );
  return { ok: true, png: await encodePng(image, null, false), samples: end.samples, whole: end.by !== 'time' };
}

// what someone waits for comes first
try {
  setPriority(15);
} catch {
  // not allowed everywhere
}
answerOnce(crop);
