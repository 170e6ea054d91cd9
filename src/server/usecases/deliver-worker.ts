/** The process that encodes one file of a proof; started by deliver-proof.ts. */
import { createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { whiteLuminance } from '../../core/brief/exposure';
import { type FilmLayers, layerCount, NO_LAYERS, tilesOf } from '../../core/film/film';
import { CleanFile } from '../files/clean-film';
import { FinishedFilm } from '../../core/film/clean';
import { DiskFilm } from '../files/film-store';
import { cleanPath, filmPath, layersPath } from '../files/proof-files';
import { encodeFilm } from '../render/deliver';
import type { DeliverJob } from './deliver-proof';

const job = JSON.parse(process.argv[2]!) as DeliverJob;
const tiles = tilesOf(job.width, job.height);
const layers = await readFile(layersPath(job.proof), 'utf8').then((text) => readLayers(JSON.parse(text)), () => NO_LAYERS);
const rendered = await DiskFilm.open(filmPath(job.proof), tiles.length, layerCount(layers));
const clean = job.finish.denoise > 0 ? await CleanFile.open(cleanPath(job.proof)) : null;
const film = clean ? new FinishedFilm(rendered, clean, job.finish.denoise, tiles) : rendered;
await pipeline(encodeFilm({ film, layers, within: job.within, width: job.width, height: job.height, white: whiteLuminance(job.ev100) }, job.kind, job.finish, job.ppi, job.marks), createWriteStream(job.out));
process.exit(0);

/** Films of an earlier day say the names of their light groups alone. */
function readLayers(said: string[] | FilmLayers): FilmLayers {
  return Array.isArray(said) ? { groups: said, aids: null } : said;
}
