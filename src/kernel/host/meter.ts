/**
 * Meters the exposure of a frame by a small quick picture of it; deterministic, so the same brief meters the same
 * anywhere. The rule is core/brief/exposure.ts.
 */
import { type MeterReading, readMeter } from '../../core/brief/exposure';
import { luminanceAt } from '../../core/color/spaces';
import { CHANNELS, EVEN, ODD, tilesOf } from '../../core/film/film';
import { type FilmSource, MemoryFilm } from '../../core/film/store';
import type { TilePool } from './pool';
import { renderFilm } from './render-film';
import type { RenderSettings } from './settings';

const LONG_SIDE_PX = 96;
const SAMPLES = 16;
const MAX_BOUNCES = 6;

/** The same frame, small and without what a meter has no use for. */
export function meterSettings(settings: RenderSettings): RenderSettings {
  const share = LONG_SIDE_PX / Math.max(settings.width, settings.height);
  return {
    ...settings,
    width: Math.max(1, Math.round(settings.width * share)),
    height: Math.max(1, Math.round(settings.height * share)),
    bounces: Math.min(settings.bounces, MAX_BOUNCES),
    firefly: 0,
    layers: 0,
    aovs: null
  };
}

/**
 * Reading of the frame that `pool` was laid out for with meterSettings; null when `shouldStop` said so, which is asked
 * every `unit` samples of a tile.
 */
export async function measureExposure(
  pool: TilePool,
  { width, height }: Pick<RenderSettings, 'width' | 'height'>,
  shouldStop?: () => boolean,
  unit?: number
): Promise<MeterReading | null> {
  const film = new MemoryFilm();
  const end = await renderFilm(
    pool,
    film,
    tilesOf(width, height),
    { samples: SAMPLES, grain: null, seconds: null, white: 1, unit },
    { shouldStop }
  );
  return end.by === 'stop' ? null : meterFilm(film, width, height);
}

/**
 * Reading by the light of a film. `block`: px a side over which it is averaged first, so that a film of few samples reads
 * as one of many.
 */
export async function meterFilm(film: FilmSource, width: number, height: number, block = 1): Promise<MeterReading> {
  const columns = Math.ceil(width / block);
  const sums = new Float64Array(columns * Math.ceil(height / block));
  const counts = new Float64Array(sums.length);
  for (const tile of tilesOf(width, height)) {
    const { samples } = film.state(tile.index)!;
    const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
    for (let i = 0; i < tile.width * tile.height; i++) {
      const p = i * CHANNELS;
      const at =
        Math.floor((tile.y + Math.floor(i / tile.width)) / block) * columns +
        Math.floor((tile.x + (i % tile.width)) / block);
      sums[at] = sums[at]! + (luminanceAt(data, p + EVEN) + luminanceAt(data, p + ODD)) / samples;
      counts[at] = counts[at]! + 1;
    }
  }
  return readMeter(sums.map((sum, i) => sum / counts[i]!));
}

/** Blocks that make a look at a frame as coarse as the meter's own. */
export const meterBlock = (width: number, height: number): number =>
  Math.max(1, Math.round(Math.max(width, height) / LONG_SIDE_PX));
