/**
 * sphaera render MODEL --brief brief.json --out picture.png|jpg|tif|webp|avif|exr|hdr|pdf [--bits 8|16] [--quality 94]
 *   [--threads N] [--report report.json]
 */
import { rename, rm, writeFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import { parseBrief } from '../contracts/brief';
import { FINE_FROM_SAMPLES } from '../core/finishing/denoise/filter';
import { tilesOf } from '../core/film/film';
import { readScene } from '../formats/gltf/read-scene';
import { config } from '../server/config';
import { openFilter } from '../server/render/open-filter';
import { MemoryDenoised } from '../core/film/denoised';
import { hashFilm } from '../server/files/film-store';
import { MemoryFilm } from '../core/film/store';
import { type DenoiseResult, denoiseFilm } from '../core/finishing/denoise/denoise-film';
import { isLinear } from '../core/catalogue/file-kinds';
import { bleedPixels, shareOfSheet } from '../core/output/size';
import { writeFilm } from '../server/render/deliver';
import type { FilmView } from '../server/render/film-rows';
import { loadKernel } from '../server/render/kernel-file';
import { readTable } from '../server/render/colour-table';
import { readBackdrop } from '../server/render/backdrop-file';
import { readCaptured } from '../server/render/captured-file';
import { readWebs } from '../server/render/photometric-files';
import { BriefRefused } from '../core/brief/refused';
import { DARK } from '../core/recipe/light';
import { prepare, run } from '../server/render/session';
import { importModel } from '../server/usecases/import-model';
import { readArguments } from './arguments';
import { BadInput } from './bad-input';
import { FILE_ARGUMENTS, readFileArguments } from './file-arguments';
import { modelFiles } from './model-files';
import { showProgress } from './progress';
import { checkPressProfile } from './press-profile';
import { readJson } from './read-json';

export async function renderCommand(args: string[]): Promise<number> {
  const { positional: model, options } = readArguments(args, ['brief', 'threads', 'report', ...FILE_ARGUMENTS]);
  if (!options.brief) throw new BadInput('say which brief to render: --brief brief.json');
  const { out, ...file } = readFileArguments(options);
  const { kind } = file;
  await checkPressProfile(file.press);
  const threads = options.threads === undefined ? config.threads : Number(options.threads);
  if (!Number.isInteger(threads) || threads < 1 || threads > 64)
    throw new BadInput(`--threads must be a whole number from 1 to 64, got "${options.threads}"`);

  const parsed = parseBrief(await readJson(options.brief, 'the brief'));
  if (!parsed.ok) throw new BadInput(parsed.message);
  const brief = parsed.value;
  const imported = await importModel({ files: await modelFiles(model), unit: null, up: null });
  if (!imported.ok) throw new BadInput(`${model}: ${imported.message}`);
  const { changed, missing } = imported.value.report;
  const scene = await readScene(imported.value.glb);
  try {
    const captured =
      brief.surroundings.kind === 'captured'
        ? await readCaptured(resolve(brief.surroundings.file), brief.surroundings.file)
        : null;
    const module = await loadKernel();
    const began = performance.now();
    const prepared = await prepare({
      scene,
      brief,
      captured,
      webs: await readWebs(brief, resolve),
      pathOf: resolve,
      module,
      threads
    });
    if (prepared.dark) process.stderr.write(`sphaera: ${DARK}; the picture will be black\n`);
    const film = new MemoryFilm();
    const done = await run(prepared, film, module, threads, { onProgress: showProgress });
    const { width, height } = prepared.settings;
    const backdrop = isLinear(kind)
      ? null
      : await readBackdrop(brief.finish.background, { width, height, within: shareOfSheet(brief) }, resolve);
    const rendered: FilmView = {
      table: isLinear(kind) ? null : await readTable(brief.finish, resolve),
      within: shareOfSheet(brief),
      film,
      layers: prepared.layers,
      width,
      height,
      white: prepared.white
    };
    let view = rendered;
    let denoiseResult: DenoiseResult | null = null;
    // linear files hold the film as it is; the finish does not touch it
    if (brief.finish.denoise > 0 && !isLinear(kind)) {
      const { filter, learned } = await openFilter(threads, done.samples < FINE_FROM_SAMPLES);
      if (!learned)
        process.stderr.write(
          'sphaera: the weights of the learned filter are not installed; denoised by our own filter\n'
        );
      const denoised = new MemoryDenoised();
      denoiseResult = await denoiseFilm(rendered, filter, denoised, () => {});
      view = { ...rendered, cleaned: { picture: denoised, layers: null } };
    }
    // written beside and renamed, so that a broken write never leaves half a picture under the name
    const part = `${out}.part`;
    try {
      await writeFilm(part, view, {
        ...file,
        about: null,
        finish: brief.finish,
        ppi: prepared.ppi,
        backdrop,
        bleedPx: brief.patch === null ? bleedPixels(brief) : 0
      });
      await rename(part, out);
    } catch (error) {
      await rm(part, { force: true });
      throw new BadInput(`cannot write ${out}: ${(error as Error).message}`);
    }
    for (const text of missing) process.stderr.write(`sphaera: ${model}: ${text}\n`);
    if (options.report) {
      const report = {
        width_px: width,
        height_px: height,
        samples: done.samples,
        grain: done.grain,
        denoised: denoiseResult && { grain: denoiseResult.grain, luminance_ratio: denoiseResult.luminanceRatio },
        seconds: (performance.now() - began) / 1000,
        rays: done.rays,
        firefly_limit_took: done.limited,
        threads,
        ev100: prepared.ev100,
        triangles: prepared.triangles,
        import: { changed, missing },
        film_sha256: await hashFilm(film, width, height, tilesOf(width, height))
      };
      await writeFile(options.report, `${JSON.stringify(report, null, 2)}\n`);
    }
    return 0;
  } catch (error) {
    if (error instanceof BriefRefused) throw new BadInput(`brief.${error.message}`);
    if (error instanceof RangeError) throw new BadInput(error.message);
    throw error;
  }
}
