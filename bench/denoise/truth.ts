/** What the benches of picture quality share: renders of the parts, their truth, and how alike two pictures are. */
import { BRIEF_DEFAULTS } from '../../src/core/brief/brief';
import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { ssim } from 'ssim.js';
import { CHANNELS, type TileRect, tilesOf } from '../../src/core/film/film';
import { type FilmSource, MemoryFilm, reopen, type TileState } from '../../src/core/film/store';
import { readExr } from '../../src/formats/exr/read-exr';
import { writeExr } from '../../src/formats/exr/write-exr';
import { renderFilm } from '../../src/kernel/host/render-film';
import { layOut } from '../../src/kernel/host/settings';
import { config } from '../../src/server/config';
import { developFilm } from '../../src/server/render/film-rows';
import { loadKernel } from '../../src/server/render/kernel-file';
import { openPool } from '../../src/server/render/node-threads';
import { type Prepared, prepare } from '../../src/server/render/session';
import { type BenchScene, PART_PX as SIZE } from './scenes';

export const REFERENCE = Math.max(1, Number(process.env.SPHAERA_BENCH_REFERENCE ?? 4096));
export const work = 'bench/work/denoise';
/** Truths, OpenEXR: NAME-KEY-SAMPLES.exr. In the repository, because they take hours. */
const TRUTHS = 'bench/denoise/truths';
/** What a truth's own guides are of: they have hardly any grain where its light still has. */
const GUIDE_SAMPLES = 64;
const TRUTH_SEED = 77;
await mkdir(work, { recursive: true });
export const module = await loadKernel();
const tiles = tilesOf(SIZE, SIZE);
const { finish } = BRIEF_DEFAULTS;

export const prepareScene = ({ scene, brief }: BenchScene): Promise<Prepared> =>
  prepare({
    scene,
    brief: { ...brief, size: { width_px: SIZE, height_px: SIZE }, quality: { ...brief.quality, scale: 1 } },
    captured: null,
    module,
    threads: config.threads
  });

export const viewOf = ({ white }: Prepared, film: FilmSource) => ({
  film,
  layers: { groups: [], aovs: null },
  width: SIZE,
  height: SIZE,
  white
});
export const shown = async (prepared: Prepared, film: FilmSource) =>
  (await developFilm(viewOf(prepared, film), finish)).pixels;

/** Wang et al. 2004, `original`, without downsampling. */
export function similarity(a: Uint8Array, b: Uint8Array): number {
  const image = (data: Uint8Array) =>
    ({ data: data as unknown as Uint8ClampedArray, width: SIZE, height: SIZE }) as ImageData;
  return ssim(image(a), image(b), { ssim: 'original', downsample: false }).mssim;
}

/** A film of so many samples, by a seed; one of fewer samples by the same seed can be taken further. */
export async function render(
  { packed, settings, white }: Prepared,
  samples: number,
  seed: number,
  film = new MemoryFilm()
): Promise<MemoryFilm> {
  const pool = openPool(module, layOut(packed, { ...settings, seed }, config.threads));
  await reopen(film, tiles);
  await renderFilm(pool, film, tiles, { samples, grain: null, seconds: null, white });
  await pool.close();
  return film;
}

/** Index of a tile's pixel in the part, row by row. */
const pixelOf = (tile: TileRect, i: number): number =>
  (tile.y + Math.floor(i / tile.width)) * SIZE + tile.x + (i % tile.width);

/** Mean radiances, rgb, row by row. */
export async function radianceOf(film: FilmSource): Promise<Float32Array> {
  const out = new Float32Array(SIZE * SIZE * 3);
  for (const tile of tiles) {
    const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
    const { samples } = film.state(tile.index)!;
    for (let i = 0; i < tile.width * tile.height; i++) {
      const at = pixelOf(tile, i) * 3;
      for (let c = 0; c < 3; c++) out[at + c] = (data[i * CHANNELS + c]! + data[i * CHANNELS + 3 + c]!) / samples;
    }
  }
  return out;
}

/** What a truth is of: model, light and camera, but not how trees are built over them. */
function keyOf({ scene, brief }: BenchScene, { settings }: Prepared): string {
  const hash = createHash('sha256');
  for (const { positions, normals, indices, triangleMaterials } of [scene.geometry, ...scene.objects])
    for (const part of [positions, normals, indices, triangleMaterials]) hash.update(part);
  for (const { pixels } of scene.textures) hash.update(pixels);
  const { viewpoint, surroundings, ground, look, lamps, exposure, quality } = brief;
  return hash
    .update(
      JSON.stringify({
        instances: scene.instances,
        materials: scene.materials,
        lights: scene.lights,
        camera: settings.camera,
        viewpoint,
        surroundings,
        ground,
        look,
        lamps,
        exposure,
        bounces: quality.bounces,
        firefly: quality.firefly,
        SIZE
      })
    )
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
  const { states, seconds } = JSON.parse(await readFile(`${work}/${key}.json`, 'utf8').catch(() => '{}')) as {
    states?: TileState[];
    seconds?: number;
  };
  const film = new MemoryFilm();
  let at = 0;
  for (const tile of tiles) {
    const floats = tile.width * tile.height * CHANNELS;
    await film.write(
      tile.index,
      new Float32Array(bytes.buffer.slice(bytes.byteOffset + at, bytes.byteOffset + at + floats * 4)),
      states?.[tile.index] ?? { samples, done: true, squaredGrain: 0 }
    );
    at += floats * 4;
  }
  return { film, seconds: seconds ?? 0 };
}

async function keep(key: string, { film, seconds }: Kept): Promise<void> {
  await writeFile(`${work}/${key}.json`, JSON.stringify({ seconds, states: tiles.map((t) => film.state(t.index)) }));
  await writeFile(
    `${work}/${key}.film`,
    Buffer.concat(await Promise.all(tiles.map(async (t) => Buffer.from((await film.read(t.index)).buffer))))
  );
}

export interface Truth {
  /** Its light, with the guides of a few samples. */
  film: MemoryFilm;
  radiance: Float32Array;
  samples: number;
}

/**
 * The truth of a part as it is kept, if with as many samples as are asked for; else it is rendered, on from one of half
 * or a quarter in bench/work.
 */
export async function truthOf(part: BenchScene, prepared: Prepared): Promise<Truth> {
  const key = keyOf(part, prepared);
  const truth = (await readTruth(part.name, key)) ?? (await renderTruth(part, prepared, key));
  const film = await render(prepared, GUIDE_SAMPLES, TRUTH_SEED);
  for (const tile of tiles) {
    const data = await film.read(tile.index);
    for (let i = 0; i < tile.width * tile.height; i++) {
      const from = pixelOf(tile, i) * 3;
      // a film holds sums of two halves of its samples
      for (let c = 0; c < 3; c++)
        data[i * CHANNELS + c] = data[i * CHANNELS + 3 + c] = (truth.radiance[from + c]! * GUIDE_SAMPLES) / 2;
    }
    await film.write(tile.index, data, film.state(tile.index)!);
  }
  return { ...truth, film };
}

/** A part's name as files have it. */
export const plain = (name: string): string => name.replaceAll(/\W+/g, '-');

async function readTruth(name: string, key: string): Promise<Omit<Truth, 'film'> | null> {
  const start = `${plain(name)}-${key}-`;
  const file = (await readdir(TRUTHS)).find((f) => f.startsWith(start));
  if (!file) return null;
  const samples = Number.parseInt(file.slice(start.length), 10);
  return samples < REFERENCE ? null : { radiance: readExr(await readFile(`${TRUTHS}/${file}`)).pixels, samples };
}

async function renderTruth(part: BenchScene, prepared: Prepared, key: string): Promise<Omit<Truth, 'film'>> {
  console.error(`rendering ${REFERENCE} samples of ${part.name}`);
  const working = (samples: number) => `${key}-truth-${samples}`;
  const fewer =
    (await readKept(working(REFERENCE / 2), REFERENCE / 2)) ?? (await readKept(working(REFERENCE / 4), REFERENCE / 4));
  const film = await render(prepared, REFERENCE, TRUTH_SEED, fewer?.film);
  await keep(working(REFERENCE), { film, seconds: 0 });
  const radiance = await radianceOf(film);
  const older = new RegExp(`^${plain(part.name)}-[0-9a-f]{16}-\\d+\\.exr$`);
  for (const file of await readdir(TRUTHS)) if (older.test(file)) await rm(`${TRUTHS}/${file}`);
  const path = `${TRUTHS}/${plain(part.name)}-${key}-${REFERENCE}.exr`;
  await writeTruth(path, part.name, radiance, REFERENCE);
  console.error(`kept as ${path}, for the repository`);
  return { radiance, samples: REFERENCE };
}

const writeTruth = (path: string, name: string, radiance: Float32Array, samples: number) =>
  writeExr(path, {
    width: SIZE,
    height: SIZE,
    ppi: null,
    attributes: { comments: `${name}, ${samples} samples` },
    channels: [
      { name: 'R', at: 0 },
      { name: 'G', at: 1 },
      { name: 'B', at: 2 }
    ],
    stride: 3,
    readRows: (y, rows) => radiance.subarray(y * SIZE * 3, (y + rows) * SIZE * 3)
  });

/** Films of rising counts of samples, each the one before taken further. */
export async function* stages(
  part: BenchScene,
  prepared: Prepared,
  counts: readonly number[]
): AsyncGenerator<Kept & { samples: number }> {
  const key = keyOf(part, prepared);
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
