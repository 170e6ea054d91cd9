import { describe, expect, it } from 'vitest';
import { MemoryDenoised } from '../../film/denoised';
import { CHANNELS, FEATURES, tilesOf } from '../../film/film';
import { MemoryFilm } from '../../film/store';
import { createRandom } from '../../sampling/random';
import { denoiseFilm } from './denoise-film';
import { createGuidedFilter } from './guided';
import { createReferenceSteps } from './guided-reference';

const WHITE = 1000;
const filter = createGuidedFilter(createReferenceSteps());

/**
 * A wall beside a darker floor, a checkered pattern on both, a soft shadow; every sample black or four times too
 * bright.
 */
async function makeFilm(width: number, height: number, samples: number) {
  const film = new MemoryFilm();
  const random = createRandom(11);
  const truth = new Float32Array(width * height);
  for (const tile of tilesOf(width, height)) {
    const data = new Float32Array(tile.width * tile.height * CHANNELS);
    for (let i = 0; i < tile.width * tile.height; i++) {
      const x = tile.x + (i % tile.width);
      const y = tile.y + Math.floor(i / tile.width);
      const reflectance = (Math.floor(x / 20) + Math.floor(y / 20)) % 2 ? 0.7 : 0.3;
      const wall = y < height / 2;
      const radiance = reflectance * (wall ? 800 : 300) * (1 - 0.5 * Math.exp(-((x - width / 2) ** 2) / 5000));
      truth[y * width + x] = radiance;
      for (let s = 0; s < samples; s++) {
        const value = random() < 0.25 ? radiance * 4 : 0;
        for (let c = 0; c < 3; c++) {
          data[i * CHANNELS + (s & 1) * 3 + c]! += value;
          data[i * CHANNELS + FEATURES + c]! += reflectance;
        }
        data[i * CHANNELS + FEATURES + (wall ? 5 : 4)]! += 1;
      }
    }
    await film.write(tile.index, data, { samples, done: true, squaredGrain: 0 });
  }
  return { film, truth };
}

async function denoised(film: MemoryFilm, width: number, height: number) {
  const out = new MemoryDenoised();
  const result = await denoiseFilm({ film, width, height, white: WHITE }, filter, out, () => {});
  const green = new Float32Array(width * height);
  for (const tile of tilesOf(width, height)) {
    const rgb = await out.read(tile);
    for (let i = 0; i < tile.width * tile.height; i++)
      green[(tile.y + Math.floor(i / tile.width)) * width + tile.x + (i % tile.width)] = rgb[i * 3 + 1]!;
  }
  return { green, result };
}

const error = (values: Float32Array, truth: Float32Array) =>
  Math.sqrt(values.reduce((sum, v, i) => sum + (v / truth[i]! - 1) ** 2, 0) / values.length);

describe('the guided filter', () => {
  it.each([
    [1, 1.732, 3],
    [4, 0.866, 5],
    [16, 0.433, 5]
  ])('at %i samples takes away most of the grain', async (samples, grain, times) => {
    const [width, height] = [160, 120];
    const { film, truth } = await makeFilm(width, height, samples);
    const { green } = await denoised(film, width, height);
    // of a sample that is four times too bright once in four the relative error is sqrt(3)
    expect(error(green, truth)).toBeLessThan(grain / times);
  });

  it('keeps the mean luminance within 1 % and states the grain that it leaves', async () => {
    const { film } = await makeFilm(160, 120, 16);
    const { result } = await denoised(film, 160, 120);
    expect(Math.abs(result.luminanceRatio - 1)).toBeLessThan(0.01);
    expect(result.grain!).toBeGreaterThan(0.05);
    expect(result.grain!).toBeLessThan(4);
  });

  it('does not smear one surface into another', async () => {
    const [width, height] = [160, 120];
    const { film, truth } = await makeFilm(width, height, 16);
    const { green } = await denoised(film, width, height);
    // the rows on both sides of the corner between wall and floor
    for (const row of [height / 2 - 1, height / 2])
      expect(
        error(green.subarray(row * width, (row + 1) * width), truth.subarray(row * width, (row + 1) * width))
      ).toBeLessThan(0.2);
  });

  it('gives the same bits in pieces as in one', async () => {
    const [width, height] = [1100, 70];
    const { film } = await makeFilm(width, height, 4);
    const { green } = await denoised(film, width, height);
    const pieces = new MemoryDenoised();
    await denoiseFilm({ film, width, height, white: WHITE }, filter, pieces, () => {}, false, 40_000);
    for (const tile of tilesOf(width, height)) {
      const rgb = await pieces.read(tile);
      for (let i = 0; i < tile.width * tile.height; i++) {
        const at = (tile.y + Math.floor(i / tile.width)) * width + tile.x + (i % tile.width);
        if (rgb[i * 3 + 1] !== green[at])
          throw new Error(
            `pixel ${tile.x + (i % tile.width)}, ${tile.y + Math.floor(i / tile.width)}: ${green[at]} in one, ${rgb[i * 3 + 1]} in pieces`
          );
      }
    }
  });
});
