/**
 * What the steps of quality are worth: parts of the demo pictures and of generated scenes, one to one, against at least 4,096 samples. For each count of
 * samples the raw grain and the structural similarity after denoising; then for each step the grain at which every part, and at
 * which the middle one, reaches its similarity. The truths are kept in bench/work; the first run takes minutes a part for them.
 */
import { readFile } from 'node:fs/promises';
import { FinishedFilm, MemoryClean } from '../../src/core/film/clean';
import { tilesOf } from '../../src/core/film/film';
import { cleanFilm } from '../../src/core/finishing/denoise/clean-film';
import { median } from '../../src/core/forecast/forecast';
import { createNodeFilter } from '../../src/denoise/node-filter';
import { guidedFilter } from '../../src/kernel/host/guided-filter';
import { config } from '../../src/server/config';
import { oneToOneScenes, PART_PX } from '../denoise/scenes';
import { module, prepareScene, REFERENCE, reference, render, shown, similarity, viewOf } from '../denoise/truth';

const COUNTS = [16, 32, 64, 128, 256, 512, 1024];
const WANTED = { Study: 0.96, Present: 0.985, Exhibit: 0.995 };
const tiles = tilesOf(PART_PX, PART_PX);
const weights = await readFile(config.built('denoise/filter.weights')).catch(() => null);
const filter = weights ? await createNodeFilter(weights, config.threads) : guidedFilter(module);
console.log(`against ${REFERENCE} samples; raw grain in L* / SSIM denoised\n| part | ${COUNTS.map((n) => `${n} samples`).join(' | ')} |\n| --- | ${COUNTS.map(() => '---').join(' | ')} |`);
const curves: { name: string; points: { grain: number; likeness: number }[] }[] = [];
for (const part of await oneToOneScenes()) {
  const prepared = await prepareScene(part);
  const truth = await shown(prepared, await reference(part.name, prepared));
  const points: { grain: number; likeness: number }[] = [];
  for (const samples of COUNTS) {
    const film = await render(prepared, samples, 1);
    const squared = tiles.reduce((sum, t) => sum + film.state(t.index)!.squaredGrain, 0) / (PART_PX * PART_PX);
    const clean = new MemoryClean();
    await cleanFilm(viewOf(prepared, film), filter, clean, () => {}, false);
    points.push({ grain: Math.sqrt(squared), likeness: similarity(await shown(prepared, new FinishedFilm(film, clean, 1, tiles)), truth) });
  }
  curves.push({ name: part.name, points });
  console.log(`| ${part.name} | ${points.map((p) => `${p.grain.toFixed(2)} / ${p.likeness.toFixed(3)}`).join(' | ')} |`);
}

/** Between two counts along their straight line; null when it is never reached. */
function grainFor(points: readonly { grain: number; likeness: number }[], wanted: number): number | null {
  const after = points.findIndex((p) => p.likeness >= wanted);
  if (after < 0) return null;
  if (after === 0) return points[0]!.grain;
  const [a, b] = [points[after - 1]!, points[after]!];
  return a.grain + ((b.grain - a.grain) * (wanted - a.likeness)) / (b.likeness - a.likeness);
}

console.log('\n| step | SSIM | raw grain that every part needs | the middle one | reached by |\n| --- | --- | --- | --- | --- |');
for (const [step, wanted] of Object.entries(WANTED)) {
  const grains = curves.map((c) => grainFor(c.points, wanted));
  const reached = grains.filter((g) => g !== null);
  console.log(`| ${step} | ${wanted} | ${reached.length === grains.length ? Math.min(...reached).toFixed(2) : 'not all'} | ${reached.length > 0 ? median(reached).toFixed(2) : 'none'} | ${reached.length} of ${grains.length} |`);
}
process.exit(0);
