/**
 * Denoises one film on disk. A process of its own, because a run of the filter blocks its thread for seconds and takes
 * gigabytes that only an exit gives back.
 */
import { tilesOf } from '../../core/film/film';
import { denoiseFilm } from '../../core/finishing/denoise/denoise-film';
import { FINE_FROM_SAMPLES } from '../../core/finishing/denoise/filter';
import { config } from '../config';
import { DenoisedFile } from '../files/denoised-file';
import { DiskFilm } from '../files/film-store';
import { denoisedPath, filmPath } from '../files/proof-files';
import { serveTask } from '../jobs/serve-task';
import { openFilter } from '../render/open-filter';

serveTask('denoise', async ({ proof, fence, layers, width, height, white, look }, { progress }) => {
  const tiles = tilesOf(width, height);
  const film = await DiskFilm.openToRead(filmPath(proof), tiles.length, layers);
  const fewest = Math.min(...tiles.map(({ index }) => film.state(index)?.samples ?? 0));
  const quick = look || fewest < FINE_FROM_SAMPLES;
  const { filter, learned } = await openFilter(config.threads, quick);
  const out = await DenoisedFile.begin(denoisedPath(proof), fence);
  const result = await denoiseFilm({ film, width, height, white }, filter, out, progress);
  await out.seal();
  await film.close();
  return { ...result, learned, quick };
});
