/**
 * What the steps of quality are worth: parts of the demo pictures and of generated scenes, one to one, against at least
 * 4,096 samples. For each count of samples the raw grain, the structural similarity after denoising (Wang et al. 2004,
 * by ssim.js, its `original` without downsampling) to the truth as rendered and to the truth denoised, and the
 * processor time. The truth as rendered has grain of its own, which no picture can be like: the last column is the
 * truth itself denoised, and so how near anything could come.
 *
 * The truths are those of bench/denoise; what is held to them is kept in bench/work, and the first run takes minutes a
 * part for it. What was measured is kept there too: SPHAERA_BENCH_KEPT=1 makes the tables of the steps again from it,
 * as the catalogue of steps has them now; SPHAERA_BENCH_SCENE=star measures those parts anew whose name has that in it.
 */
import { readFile, writeFile } from 'node:fs/promises';
import { QUALITY_STEPS } from '../../src/core/catalogue/quality';
import { FinishedFilm, MemoryDenoised } from '../../src/core/film/denoised';
import { FIRST_DECISION, tilesOf } from '../../src/core/film/film';
import { MemoryFilm } from '../../src/core/film/store';
import { denoiseFilm } from '../../src/core/finishing/denoise/denoise-film';
import { median } from '../../src/core/forecast/forecast';
import { config } from '../../src/server/config';
import { openFilter } from '../../src/server/render/open-filter';
import { oneToOneScenes, PART_PX } from '../denoise/scenes';
import { prepareScene, REFERENCE, shown, stages, similarity, truthOf, viewOf, work } from '../denoise/truth';

interface Point {
  samples: number;
  /** Raw, L*. */
  grain: number;
  /** SSIM to the truth as rendered, and to the truth denoised. */
  likeness: number;
  likenessDenoised: number;
  /** Processor time of all threads for a megapixel, without the denoising. */
  seconds: number;
}
interface Curve {
  name: string;
  points: Point[];
  /** SSIM of the truth denoised to the truth as rendered. */
  ceiling: number;
}

const COUNTS = (process.env.SPHAERA_BENCH_COUNTS ?? '16,32,64,128,256,512,1024,2048').split(',').map(Number);
const ONLY = process.env.SPHAERA_BENCH_SCENE ?? '';
const WANTED = { study: 0.96, present: 0.985, exhibit: 0.995 } as const;
const KEPT = `${work}/quality.json`;
const tiles = tilesOf(PART_PX, PART_PX);

const kept = async (): Promise<Curve[]> => JSON.parse(await readFile(KEPT, 'utf8').catch(() => '[]')) as Curve[];

async function measure(): Promise<Curve[]> {
  const { filter } = await openFilter(config.threads);
  console.log(
    `against ${REFERENCE} samples; raw grain in L* / SSIM denoised, to the truth as rendered / to the truth denoised`
  );
  console.log(
    `| part | ${COUNTS.map((n) => `${n} samples`).join(' | ')} | truth denoised |\n| --- | ${COUNTS.map(() => '---').join(' | ')} | --- |`
  );
  const curves = (await kept()).filter((c) => !c.name.includes(ONLY));
  for (const part of (await oneToOneScenes()).filter((s) => s.name.includes(ONLY))) {
    const prepared = await prepareScene(part);
    const { film: truth } = await truthOf(part, prepared);
    const denoised = async (film: MemoryFilm) => {
      const denoised = new MemoryDenoised();
      await denoiseFilm(viewOf(prepared, film), filter, denoised, () => {}, false);
      return shown(prepared, new FinishedFilm(film, denoised, 1, tiles));
    };
    const [wanted, wantedDenoised] = [await shown(prepared, truth), await denoised(truth)];
    const curve: Curve = { name: part.name, points: [], ceiling: similarity(wantedDenoised, wanted) };
    for await (const { film, samples, seconds } of stages(part, prepared, COUNTS)) {
      const squared = tiles.reduce((sum, t) => sum + film.state(t.index)!.squaredGrain, 0) / (PART_PX * PART_PX);
      const picture = await denoised(film);
      curve.points.push({
        samples,
        grain: Math.sqrt(squared),
        likeness: similarity(picture, wanted),
        likenessDenoised: similarity(picture, wantedDenoised),
        seconds
      });
    }
    curves.push(curve);
    await writeFile(KEPT, JSON.stringify(curves));
    console.log(
      `| ${part.name} | ` +
        `${curve.points.map((p) => `${p.grain.toFixed(2)} / ${p.likeness.toFixed(3)} / ${p.likenessDenoised.toFixed(3)}`).join(' | ')} ` +
        `| ${curve.ceiling.toFixed(3)} |`
    );
  }
  return curves;
}

const curves = process.env.SPHAERA_BENCH_KEPT ? await kept() : await measure();

/** Between two counts along their straight line; null when it is never reached. */
function grainFor(points: readonly Point[], of: 'likeness' | 'likenessDenoised', wanted: number): number | null {
  const after = points.findIndex((p) => p[of] >= wanted);
  if (after < 0) return null;
  if (after === 0) return points[0]!.grain;
  const [a, b] = [points[after - 1]!, points[after]!];
  return a.grain + ((b.grain - a.grain) * (wanted - a[of])) / (b[of] - a[of]);
}

console.log(
  '\nraw grain at which a part reaches its similarity\n| step | SSIM | to the truth | every part ' +
    'needs | the middle one | reached by |\n| --- | --- | --- | --- | --- | --- |'
);
for (const [key, wanted] of Object.entries(WANTED)) {
  for (const of of ['likeness', 'likenessDenoised'] as const) {
    const grains = curves.map((c) => grainFor(c.points, of, wanted));
    const reached = grains.filter((g) => g !== null);
    console.log(
      `| ${QUALITY_STEPS[key as keyof typeof WANTED].name} | ${wanted} | ` +
        `${of === 'likeness' ? 'as rendered' : 'denoised'} | ` +
        `${reached.length === grains.length ? Math.min(...reached).toFixed(2) : 'not all'} | ` +
        `${reached.length > 0 ? median(reached).toFixed(2) : 'none'} | ${reached.length} of ` +
        `${grains.length} |`
    );
  }
}

console.log(
  '\nwhat each step is now: samples, raw grain / SSIM to the truth as rendered / to the truth ' +
    'denoised, processor seconds a rendered megapixel'
);
console.log(
  `| part | ${Object.values(QUALITY_STEPS)
    .map((s) => s.name)
    .join(' | ')} |\n| --- | ${Object.keys(QUALITY_STEPS)
    .map(() => '---')
    .join(' | ')} |`
);
for (const curve of curves) {
  const cells = Object.values(QUALITY_STEPS).map((step) => {
    const allowed = curve.points.filter((p) => p.samples <= step.samples);
    const end =
      (step.grain === null
        ? null
        : allowed.find((p) => p.samples >= Math.max(FIRST_DECISION, step.min_samples) && p.grain <= step.grain!)) ??
      allowed.at(-1)!;
    return (
      `${end.samples}, ${end.grain.toFixed(2)} / ${end.likeness.toFixed(3)} / ` +
      `${end.likenessDenoised.toFixed(3)}, ${end.seconds.toFixed(0)} s`
    );
  });
  console.log(`| ${curve.name} | ${cells.join(' | ')} |`);
}
process.exit(0);
