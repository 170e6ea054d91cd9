/**
 * The process that denoises one film; started by clean-proof.ts. A process of its own, because a run of the filter
 * blocks its thread for seconds and takes gigabytes that only an exit gives back. Says a line of JSON a step.
 */
import { tilesOf } from '../../core/film/film';
import { config } from '../config';
import { CleanFile } from '../files/clean-film';
import { DiskFilm } from '../files/film-store';
import { cleanPath, filmPath } from '../files/proof-files';
import { cleanFilm } from '../../core/finishing/denoise/clean-film';
import { FINE_FROM_SAMPLES } from '../../core/finishing/denoise/filter';
import { openFilter } from './open-filter';
import type { CleanJob, CleanLine } from './clean-proof';

const job = JSON.parse(process.argv[2]!) as CleanJob;
const say = (line: CleanLine) => process.stdout.write(`${JSON.stringify(line)}\n`);
const tiles = tilesOf(job.width, job.height);
const film = await DiskFilm.open(filmPath(job.proof), tiles.length, job.layers);
const fewest = Math.min(...tiles.map(({ index }) => film.state(index)?.samples ?? 0));
const quick = job.look || fewest < FINE_FROM_SAMPLES;
const { filter, learned } = await openFilter(config.threads, quick);
const out = await CleanFile.begin(cleanPath(job.proof));
const result = await cleanFilm({ film, width: job.width, height: job.height, white: job.white }, filter, out, (share) =>
  say({ share })
);
await out.seal();
say({ result, learned, quick });
process.exit(0);
