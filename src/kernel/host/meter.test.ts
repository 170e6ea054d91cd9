import { describe, expect, it } from 'vitest';
import { CHANNELS, tilesOf } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { createRandom } from '../../core/sampling/random';
import { meterBlock, meterFilm } from './meter';

/** A grey field whose every sample is black or eight times too bright. */
async function grey(width: number, height: number, luminance: number, samples: number) {
  const film = new MemoryFilm();
  const random = createRandom(5);
  for (const tile of tilesOf(width, height)) {
    const data = new Float32Array(tile.width * tile.height * CHANNELS);
    for (let i = 0; i < tile.width * tile.height; i++)
      for (let s = 0; s < samples; s++)
        if (random() < 1 / 8) for (let c = 0; c < 3; c++) data[i * CHANNELS + (s & 1) * 3 + c]! += luminance * 8;
    await film.write(tile.index, data, { samples, done: true, squaredGrain: 0 });
  }
  return film;
}

describe('the meter', () => {
  it('reads a field of 12.5 cd/m2 as log2 100 (ISO 2720, K = 12.5)', async () => {
    const { ev100 } = await meterFilm(await grey(96, 64, 12.5, 4096), 96, 64);
    expect(ev100).toBeCloseTo(Math.log2(100), 1);
  });

  it('reads one sample a pixel over blocks as it reads many samples of a small picture', async () => {
    const block = meterBlock(768, 512);
    expect(block).toBe(8);
    const many = await meterFilm(await grey(96, 64, 100, 64), 96, 64);
    const one = await meterFilm(await grey(768, 512, 100, 1), 768, 512, block);
    expect(Math.abs(one.ev100 - many.ev100)).toBeLessThan(0.1);
  });
});
