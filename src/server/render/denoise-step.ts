/** Denoises the film of a proof, in a process of its own, and shows the result on its screen. */
import { layerGains } from '../../core/film/dimmers';
import { type FilmLayers, layerCount } from '../../core/film/film';
import type { FilmSource } from '../../core/film/store';
import { DENOISE_START_S } from '../../core/forecast/forecast';
import { type Refused, type Result, refused } from '../../core/result/result';
import { openTask } from '../jobs/run-task';
import type { TaskResult } from '../jobs/tasks';
import { saveDenoiseSpeed } from '../store/forecasts';
import type { ProofScreen } from './proof-screen';
import { cleanLayers } from './clean-layers';
import { openCleaned } from './finished-film';
import type { ProofWork } from './proof-work';

/** A film with what its denoising needs to know. */
export interface DenoisableFilm {
  film: FilmSource;
  layers: FilmLayers;
  /** Luminance of displayed white, cd/m2. */
  white: number;
}

const STOP_CHECK_MS = 250;
// Smaller finishes are mostly their start.
const MIN_JUDGED_PX = 300_000;

/** `look`: of a render that pauses for it. `isOver` ends it, with the code `stopped`. */
export async function denoiseProof(
  work: ProofWork,
  { film, layers, white }: DenoisableFilm,
  screen: ProofScreen,
  look: boolean,
  isOver: () => boolean
): Promise<Result<TaskResult<'denoise'>>> {
  const { row, lease, context } = work;
  const [width, height] = [row.width_px, row.height_px];
  const began = Date.now();
  const report = (share: number) => {
    work.write({ denoise_share: share });
    context.progress({ phase: 'denoise', share: look ? 0 : 1, secondsLeft: null });
  };
  report(0);
  const task = openTask('denoise');
  const stops = setInterval(() => {
    if (isOver()) task.kill(STOPPED);
  }, STOP_CHECK_MS);
  let lost: unknown = null;
  const result = await task.ask(
    { proof: row.id, fence: lease.fence, layers: layerCount(layers), width, height, white, look },
    (share) => {
      try {
        report(share);
      } catch (error) {
        lost = error;
        task.kill(STOPPED);
      }
    }
  );
  clearInterval(stops);
  await task.close();
  if (lost) throw lost;
  if (!result.ok) return result;
  if (result.value.learned && !result.value.quick && width * height > MIN_JUDGED_PX) {
    const seconds = (Date.now() - began) / 1000 - DENOISE_START_S;
    saveDenoiseSpeed(Math.max(0.1, (seconds * 1e6) / (width * height)));
  }
  await showDenoised(work, { film, layers, white }, screen, !look);
  return result;
}

const STOPPED: Refused = refused('the denoising was stopped', 'stopped');

/** Shows a film that was denoised before. */
export async function showDenoised(
  work: ProofWork,
  whole: DenoisableFilm,
  screen: ProofScreen,
  complete: boolean
): Promise<void> {
  const { film, layers } = whole;
  await readyLayers(work, whole);
  const cleaned = await openCleaned(work.row.id, layers);
  if (!cleaned.picture) throw new Error(`showDenoised: the denoised film of proof ${work.row.id} is not there`);
  try {
    await screen.show({ film, layers, cleaned }, complete);
  } finally {
    await cleaned.picture.close();
    await cleaned.layers?.close();
  }
}

/** Dimmed lamps of a denoised picture want their layers denoised. */
async function readyLayers({ row, brief }: ProofWork, { layers, white }: DenoisableFilm): Promise<void> {
  if (layerGains(brief.finish.lamps, layers.groups).length === 0) return;
  const made = await cleanLayers({ proof: row.id, width: row.width_px, height: row.height_px, white });
  // as rendered they serve too, with a little grain
  if (!made.ok) console.error(`layers of proof ${row.id}: ${made.message}`);
}
