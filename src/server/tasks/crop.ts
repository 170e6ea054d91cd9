/** Renders a detail of a picture as its brief would have it, denoised and developed. */
import type { Brief } from '../../core/brief/brief';
import { MemoryDenoised } from '../../core/film/denoised';
import { MemoryFilm } from '../../core/film/store';
import { denoiseFilm } from '../../core/finishing/denoise/denoise-film';
import { shareOfSheet } from '../../core/output/size';
import { encodePng } from '../../formats/image/encode';
import { config } from '../config';
import { giveWayTo, serveTask } from '../jobs/serve-task';
import { readBackdrop } from '../render/backdrop-file';
import { readTable } from '../render/colour-table';
import { developFilm } from '../render/film-rows';
import { openFilter } from '../render/open-filter';
import { refuseDark } from '../../core/recipe/light';
import { run } from '../render/session';
import { openStoredScene } from '../render/stored-scene';

// Nobody waits longer for a look; what is there by then is shown.
const MAX_MINUTES = 0.75;

giveWayTo(15);
serveTask('crop', async ({ model, brief }) => {
  const stored = await openStoredScene(model, brief.surroundings);
  const limited: Brief = { ...brief, quality: { ...brief.quality, minutes: MAX_MINUTES } };
  const prepared = await stored.prepare(limited);
  refuseDark(prepared);
  const film = new MemoryFilm();
  const end = await run(prepared, film, stored.module, config.threads, {});
  const { width, height } = prepared.settings;
  const within = shareOfSheet(brief);
  const view = { film, layers: prepared.layers, width, height, white: prepared.white, within };
  const { denoise, background } = brief.finish;
  const denoised = new MemoryDenoised();
  if (denoise > 0) await denoiseFilm(view, (await openFilter(config.threads)).filter, denoised, () => {}, false);
  const backdrop = await readBackdrop(background, { width, height, within });
  const image = await developFilm(
    {
      ...view,
      table: await readTable(brief.finish),
      cleaned: { picture: denoise > 0 ? denoised : null, layers: null }
    },
    brief.finish,
    backdrop
  );
  return { png: await encodePng(image, null, false), samples: end.samples, whole: end.by !== 'time' };
});
