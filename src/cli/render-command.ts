/**
 * sphaera render MODEL --brief brief.json --out picture.png|jpg|tif|webp|avif|exr|hdr|pdf [--bits 8|16] [--quality 94]
 *   [--threads N] [--report report.json]
 */
import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { extname, resolve } from 'node:path';
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
import {
  DELIVERY_KINDS,
  type DeliveryKind,
  holds16Bits,
  isLinear,
  QUALITY_DEFAULT
} from '../core/catalogue/file-kinds';
import { bleedPixels, shareOfSheet } from '../core/output/size';
import { type FilmView, writeFilm } from '../server/render/deliver';
import { loadKernel } from '../server/render/kernel-file';
import { readBackdrop } from '../server/render/backdrop-file';
import { readCaptured } from '../server/render/captured-file';
import { readWebs } from '../server/render/photometric-files';
import { BriefRefused } from '../core/brief/refused';
import { DARK } from '../core/recipe/light';
import { prepare, run } from '../server/render/session';
import { importModel } from '../server/usecases/import-model';
import { readArguments } from './arguments';
import { BadInput } from './bad-input';
import { modelFiles } from './model-files';
import { showProgress } from './progress';

const KINDS: Record<string, DeliveryKind> = {
  ...Object.fromEntries(DELIVERY_KINDS.map((kind) => [`.${kind}`, kind])),
  '.jpeg': 'jpg',
  '.tiff': 'tif'
};

export async function renderCommand(args: string[]): Promise<number> {
  const { positional: model, options } = readArguments(args, ['brief', 'out', 'threads', 'report', 'bits', 'quality']);
  if (!options.brief) throw new BadInput('say which brief to render: --brief brief.json');
  if (!options.out) throw new BadInput('say where the picture goes: --out picture.png');
  const kind = KINDS[extname(options.out).toLowerCase()];
  if (!kind) throw new BadInput(`--out must end in one of ${Object.keys(KINDS).join(', ')}, got "${options.out}"`);
  const bits = options.bits ?? '8';
  if (bits !== '8' && bits !== '16') throw new BadInput(`--bits must be 8 or 16, got "${bits}"`);
  if (bits === '16' && !holds16Bits(kind))
    throw new BadInput(
      `--bits 16 goes with .png and .tif, not with "${options.out}"; EXR and HDR hold more in any case`
    );
  const quality = Number(options.quality ?? QUALITY_DEFAULT);
  if (!Number.isInteger(quality) || quality < 1 || quality > 100)
    throw new BadInput(`--quality must be a whole number from 1 to 100, got "${options.quality}"`);
  const threads = options.threads === undefined ? config.threads : Number(options.threads);
  if (!Number.isInteger(threads) || threads < 1 || threads > 64)
    throw new BadInput(`--threads must be a whole number from 1 to 64, got "${options.threads}"`);

  const parsed = parseBrief(await readJson(options.brief));
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
    const part = `${options.out}.part`;
    try {
      await writeFilm(part, view, {
        kind,
        bits: bits === '16' ? 16 : 8,
        quality,
        about: null,
        finish: brief.finish,
        ppi: prepared.ppi,
        backdrop,
        bleedPx: brief.patch === null ? bleedPixels(brief) : 0
      });
      await rename(part, options.out);
    } catch (error) {
      await rm(part, { force: true });
      throw new BadInput(`cannot write ${options.out}: ${(error as Error).message}`);
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

async function readJson(path: string): Promise<unknown> {
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch {
    throw new BadInput(`cannot read the brief ${path}`);
  }
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new BadInput(`${path} is not valid JSON: ${(error as Error).message}`);
  }
}
