import { describe, expect, it } from 'vitest';
import { CHANNELS, tilesOf, type TileRect } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { renderFilm } from './render-film';

const tiles = tilesOf(150, 100);
const goal = { samples: 128, grain: null, seconds: null, white: 1 };

/**
 * A pool that adds up sample numbers instead of light; `error` gives a tile's squared grain a pixel at a sample count.
 */
function makePool(error: (tile: TileRect, samples: number) => number = () => 1, ms = 0) {
  const calls: { tile: number; first: number; count: number }[] = [];
  return {
    calls,
    threads: 2,
    layers: 0,
    async render(tile: TileRect, first: number, count: number, before: Float32Array | null) {
      calls.push({ tile: tile.index, first, count });
      if (ms) await new Promise((resolve) => setTimeout(resolve, ms));
      const data = before ?? new Float32Array(tile.width * tile.height * CHANNELS);
      for (let s = first; s < first + count; s++) data[0]! += s;
      return {
        data,
        rays: count,
        shadowRays: 0,
        light: { scattered: 10 * count, limited: tile.index === 0 ? count : 0 },
        seconds: 0,
        squaredGrain: error(tile, first + count) * tile.width * tile.height
      };
    }
  };
}
const samplesOf = (film: MemoryFilm) => tiles.map((t) => film.state(t.index)?.samples ?? 0);

describe('running a film', () => {
  it('takes each tile through its passes to the sample limit, each sample once and in order', async () => {
    const pool = makePool();
    const film = new MemoryFilm();
    const end = await renderFilm(pool, film, tiles, goal);
    expect(end.by).toBe('limits');
    expect(end.samples).toBe(128);
    expect(new Set(samplesOf(film))).toEqual(new Set([128]));
    for (const tile of tiles) {
      const mine = pool.calls.filter((c) => c.tile === tile.index);
      expect(mine.map((c) => c.first + c.count).filter((n) => n <= 32)).toEqual([1, 4, 16, 32]);
      mine.forEach((c, i) => {
        expect(c.first).toBe(i === 0 ? 0 : mine[i - 1]!.first + mine[i - 1]!.count);
      });
      expect((await film.read(tile.index))[0]).toBe((127 * 128) / 2);
    }
    // the whole picture is seen once before any tile is refined
    expect(new Set(pool.calls.slice(0, tiles.length).map((c) => c.count))).toEqual(new Set([1]));
  });

  it('goes on to the min samples that are wanted, whatever its grain', async () => {
    const film = new MemoryFilm();
    await renderFilm(
      makePool(() => 1e-6),
      film,
      tiles,
      { ...goal, samples: 1024, grain: 0.3, minSamples: 256 }
    );
    expect(tiles.map((t) => film.state(t.index)!.samples)).toEqual(tiles.map(() => 256));
  });
  it('stops a tile by itself when its grain is reached, but not before 16 samples', async () => {
    const film = new MemoryFilm();
    const end = await renderFilm(
      makePool((tile, n) => (tile.index === 0 ? 1e-6 : 4 / n)),
      film,
      tiles,
      { ...goal, samples: 1024, grain: 0.3 }
    );
    expect(film.state(0)!.samples).toBe(16);
    // 4 / n falls to 0.09 at 44.4 samples, looked at after 64
    expect(tiles.filter((t) => t.index !== 0).every((t) => film.state(t.index)!.samples === 64)).toBe(true);
    expect(end.grain!).toBeLessThan(0.3);
  });

  it('ends by the clock with a whole picture, and a stop at once with what there is; either can be gone on with', async () => {
    const film = new MemoryFilm();
    const timed = await renderFilm(
      makePool(() => 1, 5),
      film,
      tiles,
      { ...goal, seconds: 0.01 }
    );
    expect(timed.by).toBe('time');
    expect(Math.min(...samplesOf(film))).toBeGreaterThanOrEqual(1);
    expect(Math.max(...samplesOf(film))).toBeLessThan(128);

    const stoppedFilm = new MemoryFilm();
    let asked = 0;
    const stopped = await renderFilm(makePool(), stoppedFilm, tiles, goal, { shouldStop: () => ++asked > 3 });
    expect(stopped.by).toBe('stop');
    expect(samplesOf(stoppedFilm).filter((n) => n > 0).length).toBeLessThan(tiles.length);

    for (const begun of [film, stoppedFilm]) {
      expect((await renderFilm(makePool(), begun, tiles, goal)).by).toBe('limits');
      for (const tile of tiles) expect((await begun.read(tile.index))[0]).toBe((127 * 128) / 2);
    }
  });

  it('says what share of all light the firefly limit took, not the mean of the tiles', async () => {
    const end = await renderFilm(makePool(), new MemoryFilm(), tiles, goal);
    // a tenth in one of six tiles, each of which scatters the same
    expect(end.limited).toBeCloseTo(0.1 / tiles.length, 9);
  });

  it('says how far it is and how long it will take', async () => {
    const shares: number[] = [];
    const end = await renderFilm(
      makePool(() => 1, 70),
      new MemoryFilm(),
      tiles,
      { ...goal, samples: 512 },
      { onProgress: (p) => shares.push(p.share) }
    );
    expect(shares.length).toBeGreaterThan(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(end).toMatchObject({ share: 1, secondsLeft: 0 });
  });
});
