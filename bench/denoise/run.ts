/**
 * How near to the truth a picture of few samples comes, as rendered and by each filter: structural similarity (Wang et
 * al. 2004, by ssim.js, its `original` without downsampling) and PSNR of what is displayed, and mean squared error of
 * radiance over squared radiance (that plus a hundredth of squared white). The truths, of another seed, are kept beside
 * this file. One whose model, light or camera has changed is rendered again and kept, with 4,096 samples, minutes a
 * part, or as many as SPHAERA_BENCH_REFERENCE says: its own grain bounds how like it anything can be.
 */
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { FinishedFilm, MemoryDenoised } from '../../src/core/film/denoised';
import { tilesOf } from '../../src/core/film/film';
import type { FilmSource } from '../../src/core/film/store';
import { denoiseFilm } from '../../src/core/finishing/denoise/denoise-film';
import type { Filter } from '../../src/core/finishing/denoise/filter';
import { guidedFilter } from '../../src/kernel/host/guided-filter';
import { createNodeFilter } from '../../src/denoise/node-filter';
import { config } from '../../src/server/config';
import { openFilter } from '../../src/server/render/open-filter';
import { enlargedScenes, oneToOneScenes, PART_PX } from './scenes';
import {
  module,
  plain,
  prepareScene,
  radianceOf,
  REFERENCE,
  render,
  shown as shownOf,
  similarity,
  truthOf,
  viewOf,
  work
} from './truth';

const SIZE = PART_PX;
// SPHAERA_BENCH_PARTS=enlarged: of small pictures, where a pixel holds many edges
const benchScenes = process.env.SPHAERA_BENCH_PARTS === 'enlarged' ? enlargedScenes : oneToOneScenes;
const COUNTS = (process.env.SPHAERA_BENCH_COUNTS ?? '4,16,64').split(',').map(Number);
const ONLY = process.env.SPHAERA_BENCH_SCENE ?? '';
const filters: [string, Filter][] = [['own filter', guidedFilter(module)]];
const small = await readFile(config.weights('small')).catch(() => null);
if (small) filters.push(['learned, small', await createNodeFilter(small, config.threads)]);
const open = await openFilter(config.threads);
if (open.learned) filters.push(['learned', open.filter]);
const tiles = tilesOf(SIZE, SIZE);
const dB = (a: Uint8Array, b: Uint8Array) => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) if (i % 4 !== 3) sum += (a[i]! - b[i]!) ** 2;
  return 10 * Math.log10(255 ** 2 / (sum / (SIZE * SIZE * 3)));
};

console.log(
  `${SIZE} x ${SIZE} px against at least ${REFERENCE} samples, as many as stand with the scene; SSIM / PSNR dB / relative squared error`
);
console.log(
  `| scene | | ${COUNTS.map((n) => `${n} samples`).join(' | ')} |\n| --- | --- | ${COUNTS.map(() => '---').join(' | ')} |`
);
const sums = new Map<string, number[]>();
const note = (key: string, value: number) => sums.set(key, [...(sums.get(key) ?? []), value]);
const mean = (key: string) => {
  const all = sums.get(key)!;
  return (all.reduce((a, b) => a + b) / all.length).toFixed(4);
};
for (const part of (await benchScenes()).filter((s) => s.name.includes(ONLY))) {
  const { name } = part;
  const prepared = await prepareScene(part);
  const { white } = prepared;
  const view = (film: FilmSource) => viewOf(prepared, film);
  const shown = (film: FilmSource) => shownOf(prepared, film);
  const { film: truth, radiance, samples: truly } = await truthOf(part, prepared);
  const wanted = await shown(truth);
  const denoise = async (film: FilmSource, filter: Filter) => {
    const denoised = new MemoryDenoised();
    await denoiseFilm(view(film), filter, denoised, () => {}, false);
    return new FinishedFilm(film, denoised, 1, tiles);
  };
  // nothing can be liker to the truth than it is to itself without its own grain
  const best = filters.at(-1)![1];
  const calm = await shown(await denoise(truth, best));
  note('truth denoised', similarity(calm, wanted));
  const rows = new Map<string, string[]>();
  const pictures: { input: Buffer; raw: { width: number; height: number; channels: 4 }; at: [number, number] }[] = [];
  for (const [column, samples] of COUNTS.entries()) {
    const noisy = await render(prepared, samples, 1);
    const results: [string, FilmSource][] = [['as rendered', noisy]];
    for (const [label, filter] of filters) results.push([label, await denoise(noisy, filter)]);
    for (const [row, [label, film]] of results.entries()) {
      const pixels = await shown(film);
      const mssim = similarity(pixels, wanted);
      const values = await radianceOf(film);
      let error = 0;
      for (let i = 0; i < values.length; i++)
        error += (values[i]! - radiance[i]!) ** 2 / (radiance[i]! ** 2 + 0.01 * white * white);
      rows.set(label, [
        ...(rows.get(label) ?? []),
        `${mssim.toFixed(3)} / ${dB(pixels, wanted).toFixed(1)} / ${(error / values.length).toExponential(1)}`
      ]);
      note(`${label} ${samples}`, mssim);
      if (row === filters.length) note(`calm ${samples}`, similarity(pixels, calm));
      pictures.push({ input: Buffer.from(pixels), raw: { width: SIZE, height: SIZE, channels: 4 }, at: [row, column] });
    }
  }
  for (const [label, cells] of rows)
    console.log(`| ${name}, ${truly.toLocaleString('en')} | ${label} | ${cells.join(' | ')} |`);
  pictures.push({
    input: Buffer.from(wanted),
    raw: { width: SIZE, height: SIZE, channels: 4 },
    at: [filters.length + 1, 1]
  });
  // columns: as rendered, each filter, the truth; rows: sample counts
  await sharp({
    create: { width: (filters.length + 2) * SIZE, height: COUNTS.length * SIZE, channels: 3, background: '#808080' }
  })
    .composite(
      await Promise.all(
        pictures.map(async ({ input, raw, at }) => ({
          input: await sharp(input, { raw }).png().toBuffer(),
          left: at[0] * SIZE,
          top: at[1] * SIZE
        }))
      )
    )
    .png()
    .toFile(`${work}/${plain(name)}.png`);
}
console.log('\nmean SSIM over the scenes:');
for (const label of ['as rendered', ...filters.map(([name]) => name)])
  console.log(`${label}: ${COUNTS.map((n) => `${n} samples ${mean(`${label} ${n}`)}`).join(', ')}`);
console.log(
  `${filters.at(-1)![0]}, to the truth denoised: ${COUNTS.map(
    (n) =>
      `${n} samples ${mean(`calm ${n}`)}, each ${sums
        .get(`calm ${n}`)!
        .map((v) => v.toFixed(3))
        .join(' ')}`
  ).join('; ')}`
);
console.log(`the truth denoised, to itself as rendered: ${mean('truth denoised')}`);
