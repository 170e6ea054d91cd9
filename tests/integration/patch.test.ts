/** A patch is a rectangle of the whole picture: same place, same light, same exposure. */
import { expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Brief } from '../../src/core/brief/brief';
import { CHANNELS } from '../../src/core/film/film';
import { MemoryFilm } from '../../src/core/film/store';
import { config } from '../../src/server/config';
import { prepare, run } from '../../src/server/render/session';
import { kernelModule, makeScene, matte, quad, sphere, viewFrom } from '../support/scenes';

it('is the same as the whole there, within grain', async () => {
  const scene = makeScene([
    quad([-4, 0, 4], [4, 0, 4], [4, 0, -4], [-4, 0, -4], matte([0.7, 0.3, 0.2])),
    sphere([0, 0.7, 0], 0.7, { metallic: 1, roughness: 0.3, baseColor: [0.2, 0.5, 0.9, 1] }),
    sphere([-1, 0.3, 0.8], 0.3, matte(0.8))
  ]);
  const brief: Brief = {
    ...BRIEF_DEFAULTS,
    viewpoint: viewFrom([1, 1.6, 3.2], [0, 0.5, 0]),
    exposure: { metered: true },
    size: { width_px: 96, height_px: 64 },
    quality: { ...BRIEF_DEFAULTS.quality, samples: 512, grain: null }
  };
  const shoot = async (of: Brief) => {
    const prepared = await prepare({ scene, brief: of, captured: null, module: kernelModule, threads: config.threads });
    const film = new MemoryFilm();
    await run(prepared, film, kernelModule, config.threads, {});
    return { prepared, film };
  };
  const whole = await shoot(brief);
  const patch = await shoot({ ...brief, patch: { x: 0.25, y: 0.25, width: 0.5, height: 0.5 } });
  expect([patch.prepared.settings.width, patch.prepared.settings.height]).toEqual([48, 32]);
  expect(patch.prepared.ev100).toBe(whole.prepared.ev100);
  const [left, right, small] = [await whole.film.read(0), await whole.film.read(1), await patch.film.read(0)];
  let apart = 0;
  let light = 0;
  for (let y = 0; y < 32; y++) {
    for (let x = 0; x < 48; x++) {
      const [X, Y] = [x + 24, y + 16];
      const p = X < 64 ? (Y * 64 + X) * CHANNELS : (Y * 32 + X - 64) * CHANNELS;
      const green = (of: Float32Array, at: number) => (of[at + 1]! + of[at + 4]!) / 512;
      apart += Math.abs(green(X < 64 ? left : right, p) - green(small, (y * 48 + x) * CHANNELS));
      light += green(small, (y * 48 + x) * CHANNELS);
    }
  }
  expect(apart / light).toBeLessThan(0.02);
});
