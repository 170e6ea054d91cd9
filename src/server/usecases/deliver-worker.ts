/** The process that encodes one file of a proof; started by deliver-proof.ts. */
import { readFile } from 'node:fs/promises';
import { whiteLuminance } from '../../core/brief/exposure';
import { type FilmLayers, layerCount, NO_LAYERS, tilesOf } from '../../core/film/film';
import { CleanFile } from '../files/clean-film';
import { FinishedFilm } from '../../core/film/clean';
import { DiskFilm } from '../files/film-store';
import { cleanPath, filmPath, layersPath } from '../files/proof-files';
import { readBackdrop } from '../render/backdrop-file';
import { writeFilm } from '../render/deliver';
import type { DeliverJob } from './deliver-proof';

const job = JSON.parse(process.argv[2]!) as DeliverJob;
const tiles = tilesOf(job.width, job.height);
const layers = await readFile(layersPath(job.proof), 'utf8').then(
  (text) => readLayers(JSON.parse(text)),
  () => NO_LAYERS
);
const rendered = await DiskFilm.open(filmPath(job.proof), tiles.length, layerCount(layers));
const clean = job.finish.denoise > 0 ? await CleanFile.open(cleanPath(job.proof)) : null;
const film = clean ? new FinishedFilm(rendered, clean, job.finish.denoise, tiles) : rendered;
const { kind, finish, ppi, marks, within, width, height } = job;
const backdrop = kind === 'exr' ? null : await readBackdrop(finish.background, { width, height, within });
await writeFilm(
  job.out,
  { film, layers, within, width, height, white: whiteLuminance(job.ev100) },
  { kind, finish, ppi, backdrop, marks }
);
process.exit(0);

/** Films of an earlier day say the names of their light groups alone. */
function readLayers(said: string[] | FilmLayers): FilmLayers {
  return Array.isArray(said) ? { groups: said, aids: null } : said;
}
