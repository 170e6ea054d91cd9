import { expect, it } from 'vitest';
import { even, glowing, kernelModule, makeScene, matte, quad, sphere, viewFrom } from '../../../tests/support/scenes';
import { createCameraFrame } from '../../core/camera/lens';
import { tilesOf } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { renderFilm } from '../../kernel/host/render-film';
import { compileScene } from '../../kernel/host/rig';
import { layOut, NO_LIMITS } from '../../kernel/host/settings';
import { openPool } from './node-threads';

const [width, height] = [150, 100];
const tiles = tilesOf(width, height);
const scene = makeScene([
  quad([-4, 0, 4], [4, 0, 4], [4, 0, -4], [-4, 0, -4], matte(0.6)),
  sphere([0, 1, 0], 1, { ...matte(0.9), metallic: 1, roughness: 0.2 }),
  quad([-1, 3, -1], [1, 3, -1], [1, 3, 1], [-1, 3, 1], glowing(5))
]);
const open = (threads: number) =>
  openPool(
    kernelModule,
    layOut(
      compileScene(scene, kernelModule),
      {
        width,
        height,
        camera: createCameraFrame(viewFrom([0, 2, 6], [0, 1, 0]), width / height)!,
        bounces: 8,
        firefly: 0,
        ground: null,
        seed: 1,
        light: even(0.3),
        indoors: false,
        limits: NO_LIMITS,
        layers: 2,
        aovs: null
      },
      threads
    )
  );

/** Two have a copy of the scene each, three share one. */
it('one, two and three threads make the same film, bit for bit', async () => {
  const films: Buffer[] = [];
  for (const threads of [1, 2, 3]) {
    const pool = open(threads);
    const film = new MemoryFilm();
    const { rays } = await renderFilm(pool, film, tiles, { samples: 16, grain: null, seconds: null, white: 1 });
    await pool.close();
    expect(rays).toBeGreaterThan(width * height * 16);
    films.push(
      Buffer.concat(
        await Promise.all(tiles.map(async ({ index }) => Buffer.from(new Uint8Array((await film.read(index)).buffer))))
      )
    );
  }
  expect(films[0]!.some((byte) => byte !== 0)).toBe(true);
  for (const film of films.slice(1)) expect(film.equals(films[0]!)).toBe(true);
});

it('goes on in the array that it is given, which holds the same as samples taken at once', async () => {
  const pool = open(2);
  const [tile] = tiles as [(typeof tiles)[number]];
  const once = await pool.render(tile, 0, 8, null, 1);
  const begun = await pool.render(tile, 0, 3, null, 1);
  const gone = await pool.render(tile, 3, 5, begun.data, 1);
  await pool.close();
  expect(gone.data).toBe(begun.data);
  expect(gone.data).toEqual(once.data);
});
