/** What the benches of picture quality share: renders of the parts, their truth, and how alike two pictures are. */
import { createHash } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { ssim } from 'ssim.js';
import { CHANNELS, tilesOf } from '../../src/core/film/film';
import { type FilmSource, MemoryFilm, reopen, type TileState } from '../../src/core/film/store';
import { renderFilm } from '../../src/kernel/host/render-film';
import { layOut } from '../../src/kernel/host/settings';
import { config } from '../../src/server/config';
import { developFilm } from '../../src/server/render/deliver';
import { loadKernel } from '../../src/server/render/kernel-file';
import { openPool } from '../../src/server/render/node-threads';
import { type Prepared, prepare } from '../../src/server/render/session';
import { type BenchScene, PART_PX as SIZE } from './scenes';

export const REFERENCE = Math.max(1, Number(process.env.SPHAERA_BENCH_REFERENCE ?? 4096));
export const work = 'bench/work/denoise';
await mkdir(work, { recursive: true });
export const module = await loadKernel();
const tiles = tilesOf(SIZE, SIZE);
const finish = { exposure_ev: 0, white: null, denoise: 0, denoise_meanwhile: false, background: { kind: 'own' } } as const;

export const prepareScene = ({ scene, brief }: BenchScene): Promise<Prepared> => prepare({ scene, brief: { ...brief, size: { width_px: SIZE, height_px: SIZE }, quality: { ...brief.quality, scale: 1 } }, captured: null, module, threads: config.threads });

export const viewOf = ({ white }: Prepared, film: FilmSource) => ({ film, layers: { groups: [], aids: null }, width: SIZE, height: SIZE, white });
export const shown = async (prepared: Prepared, film: FilmSource) => (await developFilm(viewOf(prepared, film), finish)).pixels;

/** Wang et al. 2004, `original`, without downsampling. */
export function similarity(a: Uint8Array, b: Uint8Array): number {
  const image = (data: Uint8Array) => ({ data: data as unknown as Uint8ClampedArray, width: SIZE, height: SIZE }) as ImageData;
  return ssim(image(a), image(b), { ssim: 'original', downsample: false }).mssim;
}

/** A film of so many samples, by a seed; one of fewer samples by the same seed can be taken further. */
export async function render({ packed, settings, white }: Prepared, samples: number, seed: number, film = new MemoryFilm()): Promise<MemoryFilm> {
  const pool = openPool(module, layOut(packed, { ...settings, seed }, config.threads));
  await reopen(film, tiles);
  await renderFilm(pool, film, tiles, { samples, grain: null, seconds: null, white });
  await pool.close();
  return film;
}

/** Mean radiances, rgb, row by row. */
export async function radianceOf(film: FilmSource): Promise<Float32Array> {
  const out = new Float32Array(SIZE * SIZE * 3);
  for (const tile of tiles) {
    const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
    const { samples } = film.state(tile.index)!;
    for (let i = 0; i < tile.width * tile.height; i++) {
      const at = ((tile.y + Math.floor(i / tile.width)) * SIZE + tile.x + (i % tile.width)) * 3;
      for (let c = 0; c < 3; c++) out[at + c] = (data[i * CHANNELS + c]! + data[i * CHANNELS + 3 + c]!) / samples;
    }
  }
  return out;
}

/** What a truth is of: model, light and camera, but not how trees are built over them. */
function truthKey({ scene, brief }: BenchScene, { settings }: Prepared, samples = REFERENCE): string {
  const hash = createHash('sha256');
  for (const { positions, normals, indices, triangleMaterials } of [scene.geometry, ...scene.objects]) for (const part of [positions, normals, indices, triangleMaterials]) hash.update(part);
  for (const { pixels } of scene.textures) hash.update(pixels);
  const { viewpoint, surroundings, ground, look, lamps, exposure, quality } = brief;
  return hash
    .update(JSON.stringify({ instances: scene.instances, materials: scene.materials, lights: scene.lights, camera: settings.camera, viewpoint, surroundings, ground, look, lamps, exposure, bounces: quality.bounces, firefly: quality.firefly, REFERENCE: samples, SIZE }))
    .digest('hex')
    .slice(0, 16);
}

interface Kept {
  film: MemoryFilm;
  /** Processor time of all threads for a megapixel. */
  seconds: number;
}

/** Films of the benches, kept by what they are of: no change of the kernel should change them beyond their grain. */
async function readKept(key: string, samples: number): Promise<Kept | null> {
  const bytes = await readFile(`${work}/${key}.film`).catch(() => null);
  if (!bytes) return null;
  const { states, seconds } = JSON.parse(await readFile(`${work}/${key}.json`, 'utf8').catch(() => '{}')) as { states?: TileState[]; seconds?: number };
  const film = new MemoryFilm();
  let at = 0;
  for (const tile of tiles) {
    const floats = tile.width * tile.height * CHANNELS;
    await film.write(tile.index, new Float32Array(bytes.buffer.slice(bytes.byteOffset + at, bytes.byteOffset + at + floats * 4)), states?.[tile.index] ?? { samples, done: true, squaredGrain: 0 });
    at += floats * 4;
  }
  return { film, seconds: seconds ?? 0 };
}

async function keep(key: string, { film, seconds }: Kept): Promise<void> {
  await writeFile(`${work}/${key}.json`, JSON.stringify({ seconds, states: tiles.map((t) => film.state(t.index)) }));
  await writeFile(`${work}/${key}.film`, Buffer.concat(await Promise.all(tiles.map(async (t) => Buffer.from((await film.read(t.index)).buffer)))));
}

/** The film of the truth: of four or two times as many samples where such a one is kept; one of half or a quarter is taken further. */
export async function reference(part: BenchScene, prepared: Prepared): Promise<{ film: MemoryFilm; samples: number }> {
  const keptOf = async (samples: number) => {
    const kept = await readKept(truthKey(part, prepared, samples), samples);
    return kept && { film: kept.film, samples };
  };
  const kept = (await keptOf(REFERENCE * 4)) ?? (await keptOf(REFERENCE * 2)) ?? (await keptOf(REFERENCE));
  if (kept) return kept;
  console.error(`rendering ${REFERENCE} samples of ${part.name}`);
  const fewer = (await keptOf(REFERENCE / 2)) ?? (await keptOf(REFERENCE / 4));
  const film = await render(prepared, REFERENCE, 77, fewer?.film);
  await keep(truthKey(part, prepared), { film, seconds: 0 });
  return { film, samples: REFERENCE };
}

/** Films of rising counts of samples, each the one before taken further. */
export async function* stages(part: BenchScene, prepared: Prepared, counts: readonly number[]): AsyncGenerator<Kept & { samples: number }> {
  const key = truthKey(part, prepared);
  let at: Kept = { film: new MemoryFilm(), seconds: 0 };
  for (const samples of counts) {
    const kept = await readKept(`${key}-${samples}`, samples);
    if (kept) at = kept;
    else {
      const before = process.cpuUsage();
      await render(prepared, samples, 1, at.film);
      const { user, system } = process.cpuUsage(before);
      at = { film: at.film, seconds: at.seconds + (user + system) / (SIZE * SIZE) };
      await keep(`${key}-${samples}`, at);
    }
    yield { ...at, samples };
  }
}
