/** Encodes one file of a proof to hand over. */
import { whiteLuminance } from '../../core/brief/exposure';
import { isLinear } from '../../core/catalogue/file-kinds';
import { FinishedFilm } from '../../core/film/denoised';
import { layerCount, tilesOf } from '../../core/film/film';
import { DenoisedFile } from '../files/denoised-file';
import { DiskFilm, refuseDamaged } from '../files/film-store';
import { denoisedPath, filmPath, readLayers } from '../files/proof-files';
import { serveTask } from '../jobs/serve-task';
import { readBackdrop } from '../render/backdrop-file';
import { writeFilm } from '../render/deliver';

serveTask(
  'deliver',
  async ({ proof, film: hash, file, finish, ppi, marks, bleedPx, within, width, height, ev100, out }) => {
    const tiles = tilesOf(width, height);
    const layers = await readLayers(proof);
    const rendered = await DiskFilm.openToRead(filmPath(proof), tiles.length, layerCount(layers));
    await refuseDamaged(rendered, hash, width, height, tiles);
    const denoised = finish.denoise > 0 ? await DenoisedFile.open(denoisedPath(proof)) : null;
    const film = denoised ? new FinishedFilm(rendered, denoised, finish.denoise, tiles) : rendered;
    const backdrop = isLinear(file.kind) ? null : await readBackdrop(finish.background, { width, height, within });
    const view = { film, layers, within, width, height, white: whiteLuminance(ev100) };
    await writeFilm(out, view, { ...file, finish, ppi, backdrop, marks, bleedPx });
    return null;
  }
);
