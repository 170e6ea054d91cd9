/** Shrinks the film of a proof to what a screen shows, with all that its finish may change. */
import { writeFile } from 'node:fs/promises';
import { whiteLuminance } from '../../core/brief/exposure';
import { packStageFilm, takeStageFilm } from '../../core/film/stage-film';
import { serveTask } from '../jobs/serve-task';
import { openFinishedFilm } from '../render/finished-film';

serveTask('stage', async ({ proof, film: hash, width, height, ev100, denoise, masks, denoised, out }) => {
  const { film, layers, cleaned } = await openFinishedFilm(proof, hash, width, height, denoised);
  const view = { film, layers, cleaned, width, height, white: whiteLuminance(ev100) };
  await writeFile(out, packStageFilm(await takeStageFilm(view, denoise, masks)));
  return null;
});
