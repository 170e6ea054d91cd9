/**
 * Renders a proof from its model to its end, in named steps. May be ended at any moment and begun again: the film on
 * disk is gone on with.
 */
import { writeFile } from 'node:fs/promises';
import { layerCount, SPAN } from '../../core/film/film';
import type { FilmStore } from '../../core/film/store';
import { Refusal } from '../../core/result/result';
import { forecast } from '../../core/forecast/forecast';
import { hasReached, type FilmProgress, type RenderEnd } from '../../kernel/host/render-film';
import { config } from '../config';
import { hashFilm } from '../files/film-store';
import { layersPath, makeProofFolder } from '../files/proof-files';
import type { RenderOutcome } from '../jobs/tasks';
import { denoiseSpeed, findProbe, savePair } from '../store/forecasts';
import { denoiseProof } from './denoise-step';
import { denoiseAtEnd, endProof } from './end-proof';
import { refuseDark } from '../../core/recipe/light';
import { filmKey } from './film-key';
import { probeKey } from './probe-key';
import { ProofScreen } from './proof-screen';
import { openFilm, type ProofWork } from './proof-work';
import { type Prepared, run } from './session';
import { openStoredScene } from './stored-scene';

export async function renderProof(work: ProofWork): Promise<RenderOutcome> {
  const { row, brief, context } = work;
  // samples of another model or renderer must not be added to those that are there
  if (filmKey(work.model, brief) !== row.key_sha256)
    throw new Refusal('outdated', 'it began with another model or another renderer; render the picture again');
  context.progress({ phase: 'setup', share: row.share, secondsLeft: null });
  const stored = await openStoredScene(work.model, brief.surroundings);
  const prepared = await stored.prepare(brief, row.ev100);
  refuseDark(prepared);
  // a denoising that was broken off is done again
  work.write({ ev100: prepared.ev100, denoise_share: null, started_at_ms: row.started_at_ms ?? Date.now() });
  await makeProofFolder(row.id);
  const { layers, white } = prepared;
  if (layerCount(layers) > 0) await writeFile(layersPath(row.id), JSON.stringify(layers));
  const film = await openFilm(work, layers);
  try {
    const screen = await ProofScreen.open(work, white);
    const whole = { film, layers, white };
    await screen.show(whole, false);
    const end = await renderWithLooks(work, prepared, stored.module, film, screen);
    screen.held = false;
    await screen.show(whole, true);
    await screen.refresh();
    const stop = context.stopRequest();
    if (end.by === 'stop' && stop === 'release') return 'released';
    if (end.by === 'stop' && stop === 'drop') return 'dropped';
    if (!(await denoiseAtEnd(work, whole, screen, false))) return 'released';
    if (end.by === 'limits' && row.samples === 0 && end.runs === 1) keepForecastPair(work, end.seconds);
    work.write({ film_sha256: await hashFilm(film, row.width_px, row.height_px, work.tiles) });
    const state = end.by === 'stop' ? 'kept' : 'done';
    await endProof(work, whole, screen, state);
    return state;
  } finally {
    await film.close();
  }
}

/**
 * Renders until the brief's limits or a stop; where the brief asks for it, pauses now and then to show the film
 * denoised. `runs`: how many pieces it was rendered in.
 */
async function renderWithLooks(
  work: ProofWork,
  prepared: Prepared,
  module: WebAssembly.Module,
  film: FilmStore,
  screen: ProofScreen
): Promise<RenderEnd & { runs: number }> {
  const { brief, tiles, context } = work;
  const { denoise, denoise_meanwhile } = brief.finish;
  const moments = denoise > 0 && denoise_meanwhile ? lookMoments(brief.quality.samples) : [];
  const before = { seconds: 0, rays: 0 };
  for (let runs = 1; ; runs++) {
    const moment = moments.find((samples) => !hasReached(film, tiles, samples)) ?? null;
    const end = await run(
      prepared,
      film,
      module,
      config.threads,
      {
        onTile: (tile, data, samples) => screen.addTile(tile, data, samples),
        onProgress: (progress) => saveProgress(work, progress, before),
        shouldStop: () => context.stopRequest() !== null || (moment !== null && hasReached(film, tiles, moment))
      },
      work.row.seconds + before.seconds
    );
    before.seconds += end.seconds;
    before.rays += end.rays;
    const paused = end.by === 'stop' && context.stopRequest() === null;
    if (!paused) return { ...end, seconds: before.seconds, rays: before.rays, runs };
    await screen.refresh();
    const began = Date.now();
    const whole = { film, layers: prepared.layers, white: prepared.white };
    const look = await denoiseProof(work, whole, screen, true, () => context.stopRequest() !== null);
    work.write({ denoise_share: null });
    before.seconds += (Date.now() - began) / 1000;
    if (!look.ok) continue;
    screen.held = true;
    await screen.refresh();
  }
}

/** Sample counts at which a film is shown denoised: fourfold each time. Its end has a look of its own. */
export function lookMoments(samples: number): number[] {
  const out: number[] = [];
  for (let moment = SPAN; moment < samples; moment *= 4) out.push(moment);
  return out;
}

/** `before`: what earlier runs of this task took. */
function saveProgress(work: ProofWork, progress: FilmProgress, before: { seconds: number; rays: number }): void {
  const { row, context } = work;
  const { share, samples, grain, seconds, secondsLeft, rays, limited } = progress;
  work.write({
    share,
    samples,
    grain,
    seconds: row.seconds + before.seconds + seconds,
    rays: row.rays + before.rays + rays,
    limited_share: limited
  });
  context.progress({ phase: 'render', share, secondsLeft });
}

// Shorter renders are mostly their start.
const MIN_JUDGED_S = 1;

/** Keeps what a forecast would have said beside what it took, for the next forecasts of the project. */
function keepForecastPair({ row, brief, model, project }: ProofWork, took: number): void {
  const probe = findProbe(probeKey(model, brief));
  // a patch may be of the easiest or the hardest place
  if (!probe || brief.patch) return;
  const { samples, grain, min_samples, minutes } = brief.quality;
  const machine = { threads: config.threads, denoiseSecondsPerMegapixel: denoiseSpeed(), ratios: [] };
  const size = { width_px: row.width_px, height_px: row.height_px };
  const { renderSeconds } = forecast(probe, machine, {
    ...size,
    samples,
    grain,
    min_samples,
    minutes,
    denoised: false
  });
  if (renderSeconds > MIN_JUDGED_S) savePair(row.id, project, renderSeconds, took, Date.now());
}
