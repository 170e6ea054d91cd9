/** The filter with its real weights: what it does to a generated film, and that pieces give what the whole gives. */
import { existsSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { CHANNELS, FEATURES, tilesOf } from '../../src/core/film/film';
import type { Filter } from '../../src/core/finishing/denoise/filter';
import { createRandom } from '../../src/core/sampling/random';
import { MemoryDenoised } from '../../src/core/film/denoised';
import { MemoryFilm } from '../../src/core/film/store';
import { denoiseFilm } from '../../src/core/finishing/denoise/denoise-film';
import { openFilter } from '../../src/server/render/open-filter';

const WEIGHTS = 'build/denoise/filter.weights';
const SAMPLES = 16;
const WHITE = 1000;

/**
 * Radiance of a picture without grain: a lit wall beside a dark one, a soft shadow, a checkered floor; its features say
 * so too.
 */
function truth(x: number, y: number): { radiance: number; reflectance: number; normal: [number, number, number] } {
  if (y > 200) {
    const reflectance = (Math.floor(x / 24) + Math.floor(y / 24)) % 2 ? 0.7 : 0.2;
    return {
      radiance: 500 * reflectance * (1 - 0.6 * Math.exp(-((x - 160) ** 2 + (y - 260) ** 2) / 1800)),
      reflectance,
      normal: [0, 1, 0]
    };
  }
  return x < 130
    ? { radiance: 350, reflectance: 0.5, normal: [0, 0, 1] }
    : { radiance: 40 + y / 4, reflectance: 0.5, normal: [1, 0, 0] };
}

async function makeFilm(width: number, height: number) {
  const film = new MemoryFilm();
  const random = createRandom(7);
  for (const tile of tilesOf(width, height)) {
    const data = new Float32Array(tile.width * tile.height * CHANNELS);
    for (let i = 0; i < tile.width * tile.height; i++) {
      const t = truth(tile.x + (i % tile.width), tile.y + Math.floor(i / tile.width));
      for (let s = 0; s < SAMPLES; s++) {
        // a sample is black or, one time in four, four times too bright: the grain of a path tracer
        const value = random() < 0.25 ? t.radiance * 4 : 0;
        for (let c = 0; c < 3; c++) {
          data[i * CHANNELS + (s & 1) * 3 + c]! += value;
          data[i * CHANNELS + FEATURES + c]! += t.reflectance;
          data[i * CHANNELS + FEATURES + 3 + c]! += t.normal[c]!;
        }
      }
    }
    await film.write(tile.index, data, { samples: SAMPLES, done: true, squaredGrain: 0 });
  }
  return film;
}

async function errors(film: MemoryFilm, denoised: MemoryDenoised, width: number, height: number) {
  let noisy = 0;
  let left = 0;
  for (const tile of tilesOf(width, height)) {
    const data = await film.read(tile.index);
    const rgb = await denoised.read(tile);
    for (let i = 0; i < tile.width * tile.height; i++) {
      const { radiance } = truth(tile.x + (i % tile.width), tile.y + Math.floor(i / tile.width));
      noisy += ((data[i * CHANNELS]! + data[i * CHANNELS + 3]!) / SAMPLES / radiance - 1) ** 2;
      left += (rgb[i * 3]! / radiance - 1) ** 2;
    }
  }
  return { noisy: Math.sqrt(noisy / width / height), left: Math.sqrt(left / width / height) };
}

describe.skipIf(!existsSync(WEIGHTS))('denoising a film', () => {
  it('takes away at least nine tenths of the error, keeps the mean within 1 %, and states the grain it leaves', async () => {
    const [width, height] = [330, 300];
    const film = await makeFilm(width, height);
    const denoised = new MemoryDenoised();
    const shares: number[] = [];
    const result = await denoiseFilm(
      { film, width, height, white: WHITE },
      (await openFilter(2)).filter,
      denoised,
      (share) => shares.push(share)
    );
    const { noisy, left } = await errors(film, denoised, width, height);
    expect(noisy).toBeGreaterThan(0.4); // sqrt(3 / 16)
    expect(left).toBeLessThan(noisy / 10);
    expect(Math.abs(result.luminanceRatio - 1)).toBeLessThan(0.01);
    expect(result.grain!).toBeGreaterThan(0);
    expect(result.grain!).toBeLessThan(2);
    expect(shares.at(-1)).toBe(1);
  });

  it('looks both ways: nearer to the truth than one look, and the grain stated from one look is that of both', async () => {
    const [width, height] = [330, 300];
    const film = await makeFilm(width, height);
    const { filter } = await openFilter(2);
    const by = async (used: Filter) => {
      const denoised = new MemoryDenoised();
      const { grain } = await denoiseFilm({ film, width, height, white: WHITE }, used, denoised, () => {});
      return { grain: grain!, ...(await errors(film, denoised, width, height)) };
    };
    const one = await by({ ...filter, run: filter.once!, once: undefined });
    const [both, stated] = [await by({ ...filter, once: undefined }), await by(filter)];
    expect(stated.left).toBe(both.left);
    expect(stated.grain).toBe(one.grain);
    expect(both.left / one.left).toBeLessThan(0.98);
    expect(stated.grain / both.grain).toBeGreaterThan(0.98);
    expect(stated.grain / both.grain).toBeLessThan(1.2);
  });

  it('gives the same bits in pieces as in one', async () => {
    const [width, height] = [700, 70];
    const film = await makeFilm(width, height);
    const { filter } = await openFilter(2);
    const by = async (pixels?: number) => {
      const denoised = new MemoryDenoised();
      await denoiseFilm({ film, width, height, white: WHITE }, filter, denoised, () => {}, false, pixels);
      return denoised;
    };
    const [whole, pieces] = [await by(), await by(400 * 80)];
    for (const tile of tilesOf(width, height)) expect(await pieces.read(tile)).toEqual(await whole.read(tile));
  });

  it('asks the filter for pieces that join without a seam: what lies 90 px away is there everywhere', async () => {
    // stands for the network: shows what lies 90 px to the left, which a piece only has when it has its halo
    const local: Filter = {
      channels: 9,
      linear: false,
      reachPx: 96,
      async run(input, height, width) {
        const out = new Float32Array(3 * height * width);
        for (let c = 0; c < 3; c++)
          for (let y = 0; y < height; y++)
            for (let x = 0; x < width; x++)
              out[(c * height + y) * width + x] = input[(c * height + y) * width + Math.max(0, x - 90)]!;
        return out;
      }
    };
    const [width, height] = [2000, 70];
    const film = await makeFilm(width, height);
    const denoised = new MemoryDenoised();
    await denoiseFilm({ film, width, height, white: WHITE }, local, denoised, () => {}, false, 60_000);
    const at = async (x: number, y: number) => {
      const tile = tilesOf(width, height).find((t) => x >= t.x && x < t.x + t.width && y >= t.y && y < t.y + t.height)!;
      const i = (y - tile.y) * tile.width + x - tile.x;
      const data = await film.read(tile.index);
      return {
        film: (data[i * CHANNELS]! + data[i * CHANNELS + 3]!) / SAMPLES,
        denoised: (await denoised.read(tile))[i * 3]!
      };
    };
    for (const x of [95, 700, 895, 896, 897, 1000, 1340, 1343, 1344, 1999]) {
      const wanted = (await at(x - 90, 33)).film;
      const got = (await at(x, 33)).denoised;
      expect(Math.abs(got - wanted)).toBeLessThan(1e-3 * Math.max(1, wanted));
    }
  });
});
