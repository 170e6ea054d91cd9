/**
 * How near to the truth a picture of few samples comes, as rendered and by each filter: structural similarity (Wang et al. 2004, by
 * ssim.js, its `original` without downsampling) and PSNR of what is displayed, and mean squared error of radiance over squared radiance
 * (that plus a hundredth of squared white). The truth has at least 4,096 samples of another seed and is kept in bench/work; the first run
 * takes half an hour for it. SPHAERA_BENCH_REFERENCE=512 makes a quicker, worse one.
 */
import { createHash } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { ssim } from 'ssim.js';
import { FinishedFilm, MemoryClean } from '../../src/core/film/clean';
import { CHANNELS, tilesOf } from '../../src/core/film/film';
import { type FilmSource, MemoryFilm } from '../../src/core/film/store';
import { cleanFilm } from '../../src/core/finishing/denoise/clean-film';
import type { Filter } from '../../src/core/finishing/denoise/filter';
import { guidedFilter } from '../../src/kernel/host/guided-filter';
import { createNodeFilter } from '../../src/denoise/node-filter';
import { renderFilm } from '../../src/kernel/host/render-film';
import { layOut } from '../../src/kernel/host/settings';
import { config } from '../../src/server/config';
import { developFilm } from '../../src/server/render/deliver';
import { loadKernel } from '../../src/server/render/kernel-file';
import { openPool } from '../../src/server/render/node-threads';
import { type Prepared, prepare } from '../../src/server/render/session';
import { benchScenes } from './scenes';

const SIZE = 128;
const REFERENCE = Math.max(1, Number(process.env.SPHAERA_BENCH_REFERENCE ?? 4096));
const COUNTS = (process.env.SPHAERA_BENCH_COUNTS ?? '4,16,64').split(',').map(Number);
const ONLY = process.env.SPHAERA_BENCH_SCENE ?? '';
const work = 'bench/work/denoise';
await mkdir(work, { recursive: true });
const module = await loadKernel();
const filters: [string, Filter][] = [['own filter', guidedFilter(module)]];
for (const [name, file] of [['learned, small', 'small.weights'], ['learned', 'filter.weights']] as const) {
  const weights = await readFile(config.built(`denoise/${file}`)).catch(() => null);
  if (weights) filters.push([name, await createNodeFilter(weights, config.threads)]);
}
const tiles = tilesOf(SIZE, SIZE);
const finish = { exposure_ev: 0, white: null, denoise: 0, denoise_meanwhile: false, background: { kind: 'own' } } as const;

async function render({ packed, settings, white }: Prepared, samples: number, seed: number): Promise<MemoryFilm> {
  const pool = openPool(module, layOut(packed, { ...settings, seed }, config.threads));
  const film = new MemoryFilm();
  await renderFilm(pool, film, tiles, { samples, grain: null, seconds: null, white });
  await pool.close();
  return film;
}

/** Mean radiances, rgb, row by row. */
async function radianceOf(film: FilmSource): Promise<Float32Array> {
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

/** The film of the truth, kept by what it is of: no change of the kernel should change the truth. */
async function reference(name: string, prepared: Prepared): Promise<MemoryFilm> {
  const { light, ...settings } = prepared.settings;
  const key = createHash('sha256').update(prepared.packed.pack).update(prepared.packed.rig).update(JSON.stringify({ settings, sun: light.sun, even: light.even, REFERENCE, SIZE })).digest('hex').slice(0, 16);
  const path = `${work}/${key}.film`;
  const kept = await readFile(path).catch(() => null);
  const film = new MemoryFilm();
  if (kept) {
    let at = 0;
    for (const tile of tiles) {
      const floats = tile.width * tile.height * CHANNELS;
      await film.write(tile.index, new Float32Array(kept.buffer.slice(kept.byteOffset + at, kept.byteOffset + at + floats * 4)), { samples: REFERENCE, done: true, squaredGrain: 0 });
      at += floats * 4;
    }
    return film;
  }
  console.error(`rendering ${REFERENCE} samples of ${name}`);
  const made = await render(prepared, REFERENCE, 77);
  await writeFile(path, Buffer.concat(await Promise.all(tiles.map(async (t) => Buffer.from((await made.read(t.index)).buffer)))));
  return made;
}

const dB = (a: Uint8Array, b: Uint8Array) => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) if (i % 4 !== 3) sum += (a[i]! - b[i]!) ** 2;
  return 10 * Math.log10(255 ** 2 / (sum / (SIZE * SIZE * 3)));
};

console.log(`${SIZE} x ${SIZE} px against ${REFERENCE} samples; SSIM / PSNR dB / relative squared error`);
console.log(`| scene | | ${COUNTS.map((n) => `${n} samples`).join(' | ')} |\n| --- | --- | ${COUNTS.map(() => '---').join(' | ')} |`);
const sums = new Map<string, number[]>();
for (const { name, scene, brief } of (await benchScenes()).filter((s) => s.name.includes(ONLY))) {
  const prepared = await prepare({ scene, brief: { ...brief, size: { width_px: SIZE, height_px: SIZE }, quality: { ...brief.quality, scale: 1 } }, captured: null, module, threads: config.threads });
  const { white } = prepared;
  const view = (film: FilmSource) => ({ film, layers: { groups: [], aids: null }, width: SIZE, height: SIZE, white });
  const shown = async (film: FilmSource) => (await developFilm(view(film), finish)).pixels;
  const truth = await reference(name, prepared);
  const [wanted, radiance] = [await shown(truth), await radianceOf(truth)];
  const rows = new Map<string, string[]>();
  const pictures: { input: Buffer; raw: { width: number; height: number; channels: 4 }; at: [number, number] }[] = [];
  for (const [column, samples] of COUNTS.entries()) {
    const noisy = await render(prepared, samples, 1);
    const results: [string, FilmSource][] = [['as rendered', noisy]];
    for (const [label, filter] of filters) {
      const clean = new MemoryClean();
      await cleanFilm(view(noisy), filter, clean, () => {}, false);
      results.push([label, new FinishedFilm(noisy, clean, 1, tiles)]);
    }
    for (const [row, [label, film]] of results.entries()) {
      const pixels = await shown(film);
      const { mssim } = ssim({ data: pixels as unknown as Uint8ClampedArray, width: SIZE, height: SIZE } as ImageData, { data: wanted as unknown as Uint8ClampedArray, width: SIZE, height: SIZE } as ImageData, { ssim: 'original', downsample: false });
      const values = await radianceOf(film);
      let error = 0;
      for (let i = 0; i < values.length; i++) error += (values[i]! - radiance[i]!) ** 2 / (radiance[i]! ** 2 + 0.01 * white * white);
      rows.set(label, [...(rows.get(label) ?? []), `${mssim.toFixed(3)} / ${dB(pixels, wanted).toFixed(1)} / ${(error / values.length).toExponential(1)}`]);
      const key = `${label} ${samples}`;
      sums.set(key, [...(sums.get(key) ?? []), mssim]);
      pictures.push({ input: Buffer.from(pixels), raw: { width: SIZE, height: SIZE, channels: 4 }, at: [row, column] });
    }
  }
  for (const [label, cells] of rows) console.log(`| ${name} | ${label} | ${cells.join(' | ')} |`);
  pictures.push({ input: Buffer.from(wanted), raw: { width: SIZE, height: SIZE, channels: 4 }, at: [filters.length + 1, 1] });
  // columns: as rendered, each filter, the truth; rows: sample counts
  await sharp({ create: { width: (filters.length + 2) * SIZE, height: COUNTS.length * SIZE, channels: 3, background: '#808080' } })
    .composite(await Promise.all(pictures.map(async ({ input, raw, at }) => ({ input: await sharp(input, { raw }).png().toBuffer(), left: at[0] * SIZE, top: at[1] * SIZE }))))
    .png()
    .toFile(`${work}/${name.replaceAll(/\W+/g, '-')}.png`);
}
console.log('\nmean SSIM over the scenes:');
for (const label of ['as rendered', ...filters.map(([name]) => name)]) console.log(`${label}: ${COUNTS.map((n) => { const all = sums.get(`${label} ${n}`)!; return `${n} samples ${(all.reduce((a, b) => a + b) / all.length).toFixed(3)}`; }).join(', ')}`);
