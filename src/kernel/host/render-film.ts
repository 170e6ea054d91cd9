/**
 * Runs a film to its end: passes of doubling sample counts over all tiles, each tile stopping by itself when its grain
 * is reached. What a tile holds depends on its sample count alone, so any order of work, any number of threads and any
 * number of restarts give the same bytes.
 */
import { FIRST_DECISION, passEnds, tileFloats, type TileRect } from '../../core/film/film';
import type { FilmSource, FilmStore } from '../../core/film/store';
import type { TilePool } from './pool';

export interface RenderGoal {
  /** Most samples per pixel; exact when grain is null. */
  samples: number;
  grain: number | null;
  /** Samples before which a tile's grain does not end it; FIRST_DECISION when that is more. */
  minSamples?: number;
  /** Ends with what there is after this long; null for no limit. */
  seconds: number | null;
  /** Luminance of displayed white, cd/m2. */
  white: number;
  /**
   * Most samples of a tile between two looks at the clock; 64 when not stated. What the film holds does not depend on
   * it.
   */
  unit?: number;
}

export interface FilmProgress {
  /** 0 to 1, of the samples still expected. */
  share: number;
  samples: number;
  grain: number | null;
  seconds: number;
  /** Null until there is something to judge by. */
  secondsLeft: number | null;
  rays: number;
  /** Share of the scattered light that the firefly limit took in this run; 0 without a limit. */
  limited: number;
}

export interface RenderEnd extends FilmProgress {
  /** What ended it: its own limits, the clock, or shouldStop. */
  by: 'limits' | 'time' | 'stop';
}

export interface RenderHooks {
  onTile?(tile: TileRect, data: Float32Array, samples: number): void;
  onProgress?(progress: FilmProgress): void;
  /** Asked between tiles; true ends the render and keeps what there is. */
  shouldStop?(): boolean;
}

const CHECKPOINT_MS = 1000;
const LARGEST_UNIT = 64; // samples of a tile between two looks at the clock

export async function renderFilm(
  pool: TilePool,
  film: FilmStore,
  tiles: readonly TileRect[],
  goal: RenderGoal,
  hooks: RenderHooks = {}
): Promise<RenderEnd> {
  const pixels = (tile: TileRect) => tile.width * tile.height;
  const totalPixels = tiles.reduce((sum, tile) => sum + pixels(tile), 0);
  const decisions = new Set(passEnds(goal.samples));
  const began = performance.now();
  let rays = 0;
  const light = { scattered: 0, limited: 0 };
  let doneSamples = 0;
  let lastCommit = began;
  let by: RenderEnd['by'] = 'limits';
  let committing: Promise<void> = Promise.resolve();

  const progress = (): FilmProgress => {
    let samples = 0;
    let expected = 0;
    let squared = 0;
    let measured = 0;
    for (const tile of tiles) {
      const state = film.state(tile.index);
      const n = state?.samples ?? 0;
      samples += n * pixels(tile);
      expected +=
        (state?.done ? n : expectedSamples(n, state?.squaredGrain ?? null, pixels(tile), goal)) * pixels(tile);
      if (state && n >= 2) {
        squared += state.squaredGrain;
        measured += pixels(tile);
      }
    }
    const seconds = (performance.now() - began) / 1000;
    let left = doneSamples > 0 ? (Math.max(0, expected - samples) * seconds) / doneSamples : null;
    if (left !== null && goal.seconds !== null) left = Math.min(left, Math.max(0, goal.seconds - seconds));
    return {
      share: expected > 0 ? Math.min(1, samples / expected) : 0,
      samples: samples / totalPixels,
      grain: measured > 0 ? Math.sqrt(squared / measured) : null,
      seconds,
      secondsLeft: left,
      rays,
      limited: light.scattered > 0 ? light.limited / light.scattered : 0
    };
  };

  const unit = async (tile: TileRect, end: number) => {
    const state = film.state(tile.index);
    const first = state?.samples ?? 0;
    const count = Math.min(end - first, goal.unit ?? LARGEST_UNIT);
    const before = state ? await film.read(tile.index, tileFloats(pixels(tile), pool.layers)) : null;
    const result = await pool.render(tile, first, count, before, goal.white);
    const samples = first + count;
    const squared = result.squaredGrain;
    const enough =
      goal.grain !== null &&
      samples >= Math.max(FIRST_DECISION, goal.minSamples ?? 0) &&
      decisions.has(samples) &&
      Math.sqrt(squared / pixels(tile)) <= goal.grain;
    await film.write(tile.index, result.data, {
      samples,
      done: enough || samples >= goal.samples,
      squaredGrain: squared
    });
    rays += result.rays;
    light.scattered += result.light.scattered;
    light.limited += result.light.limited;
    doneSamples += count * pixels(tile);
    hooks.onTile?.(tile, result.data, samples);
    if (performance.now() - lastCommit > CHECKPOINT_MS) {
      lastCommit = performance.now();
      committing = committing.then(() => film.commit());
      hooks.onProgress?.(progress());
    }
  };

  for (const end of decisions) {
    while (by === 'limits') {
      const open = tiles.filter((tile) => {
        const state = film.state(tile.index);
        return !state || (!state.done && state.samples < end);
      });
      if (open.length === 0) break;
      let next = 0;
      const lane = async () => {
        while (next < open.length && by === 'limits') {
          if (hooks.shouldStop?.()) by = 'stop';
          // the first look at the whole picture is always finished, so that there is one
          else if (goal.seconds !== null && end > 1 && performance.now() - began > goal.seconds * 1000) by = 'time';
          if (by !== 'limits') break;
          await unit(open[next++]!, end);
        }
      };
      await Promise.all(Array.from({ length: pool.threads }, lane));
    }
    if (by !== 'limits') break;
  }
  await committing;
  await film.commit();
  const last = progress();
  hooks.onProgress?.(last);
  return { ...last, by };
}

/** Whether every tile has so many samples, or as many as it wants. */
export const hasReached = (film: FilmSource, tiles: readonly TileRect[], samples: number): boolean =>
  tiles.every(({ index }) => {
    const state = film.state(index);
    return state !== null && (state.done || state.samples >= samples);
  });

/** Samples that a tile will probably take: grain falls with the root of the samples. */
function expectedSamples(samples: number, squared: number | null, pixels: number, goal: RenderGoal): number {
  if (goal.grain === null || squared === null || samples < 8) return goal.samples;
  const needed = samples * (squared / pixels / (goal.grain * goal.grain));
  for (const end of passEnds(goal.samples))
    if (end >= Math.max(needed, goal.minSamples ?? 0) && end > samples) return end;
  return goal.samples;
}
