/** Denoises the light layers of a film on disk, one by one, by the quick filter: they are rescaled to the picture's. */
import { LayerFilm } from '../../core/film/layer-film';
import { layerCount, tilesOf } from '../../core/film/film';
import { denoiseFilm } from '../../core/finishing/denoise/denoise-film';
import { config } from '../config';
import { DenoisedFile } from '../files/denoised-file';
import { DiskFilm } from '../files/film-store';
import { cleanLayersPath, filmPath, readLayers } from '../files/proof-files';
import { giveWayTo, serveTask } from '../jobs/serve-task';
import { openFilter } from '../render/open-filter';

giveWayTo(10);
serveTask('layers', async ({ proof, width, height, white }, { progress }) => {
  const layers = await readLayers(proof);
  const count = layers.groups.length;
  const film = await DiskFilm.openToRead(filmPath(proof), tilesOf(width, height).length, layerCount(layers));
  const { filter } = await openFilter(config.threads, true);
  const out = await DenoisedFile.begin(cleanLayersPath(proof), process.pid, count);
  for (let layer = 0; layer < count; layer++) {
    const view = { film: new LayerFilm(film, layers, layer), width, height, white };
    const plane = { write: (tile: Parameters<typeof out.write>[0], rgb: Float32Array) => out.write(tile, rgb, layer) };
    await denoiseFilm(view, filter, plane, (share) => progress((layer + share) / count), false);
  }
  await out.seal();
  await film.close();
  return null;
});
