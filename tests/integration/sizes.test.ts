/**
 * Light does not depend on size: the same picture at four sizes, scaled down to the smallest, is equal within grain.
 */
import { expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from '../../src/core/brief/brief';
import { CHANNELS, tilesOf } from '../../src/core/film/film';
import { MemoryFilm } from '../../src/core/film/store';
import { config } from '../../src/server/config';
import { prepare, run } from '../../src/server/render/session';
import { kernelModule, makeScene, matte, quad, sphere, viewFrom } from '../support/scenes';

const SMALL = { width: 24, height: 16 };
const SAMPLES = 1024;

it('at 24, 48, 96 and 192 px, of a glossy, a matte and a glass ball under a sky with its sun', async () => {
  const scene = makeScene([
    quad([-4, 0, 4], [4, 0, 4], [4, 0, -4], [-4, 0, -4], matte([0.7, 0.5, 0.4])),
    sphere([0, 0.7, 0], 0.7, { metallic: 1, roughness: 0.3, baseColor: [0.6, 0.7, 0.9, 1] }),
    sphere([-1, 0.3, 0.9], 0.3, matte(0.8)),
    sphere([0.9, 0.3, 0.9], 0.3, { transmission: 1, solid: true, roughness: 0, ior: 1.5 })
  ]);
  const shoot = async (factor: number): Promise<number[]> => {
    const [width, height] = [SMALL.width * factor, SMALL.height * factor];
    const brief: Brief = {
      ...BRIEF_DEFAULTS,
      viewpoint: viewFrom([1, 1.6, 3.2], [0, 0.4, 0]),
      surroundings: SURROUNDINGS_DEFAULTS.sky,
      exposure: { ev100: 14 },
      size: { width_px: width, height_px: height },
      quality: { ...BRIEF_DEFAULTS.quality, samples: SAMPLES / factor ** 2, grain: null, firefly: 4 }
    };
    const prepared = await prepare({ scene, brief, captured: null, module: kernelModule, threads: config.threads });
    const film = new MemoryFilm();
    await run(prepared, film, kernelModule, config.threads, {});
    const sums = Array.from({ length: SMALL.width * SMALL.height }, () => 0);
    for (const tile of tilesOf(width, height)) {
      const data = await film.read(tile.index);
      for (let i = 0; i < tile.width * tile.height; i++) {
        const [x, y] = [tile.x + (i % tile.width), tile.y + Math.floor(i / tile.width)];
        const at = Math.floor(y / factor) * SMALL.width + Math.floor(x / factor);
        // samples times pixels are the same at every size
        sums[at] = sums[at]! + (data[i * CHANNELS + 1]! + data[i * CHANNELS + 4]!) / SAMPLES;
      }
    }
    return sums;
  };
  const all = await Promise.all([1, 2, 4, 8].map(shoot));
  const mean = (values: number[]) => values.reduce((a, b) => a + b) / values.length;
  for (const other of all.slice(1)) {
    expect(mean(other) / mean(all[0]!)).toBeGreaterThan(0.99);
    expect(mean(other) / mean(all[0]!)).toBeLessThan(1.01);
    // the pixel filter is 1.5 px wide, so edges differ; inside them nothing does
    const apart = other.map((v, i) => Math.abs(v / all[0]![i]! - 1)).sort((a, b) => a - b);
    expect(apart[Math.floor(apart.length / 2)]!).toBeLessThan(0.03);
  }
});
