/**
 * A render from model to film, whoever asked for it: prepares, meters when the brief says so, opens threads, runs to
 * the end or the stop. The film's bytes depend on scene, brief and sample map alone.
 */
import type { Brief } from '../../core/brief/brief';
import { exposed, exposureBy, type MeterReading } from '../../core/brief/exposure';
import { type FilmLayers, tilesOf } from '../../core/film/film';
import { cropFrame } from '../../core/camera/lens';
import { proofPixels, proofPpi } from '../../core/output/size';
import { makeNeutralLight } from '../../core/recipe/light';
import { type PackInput, packedModel, packInput } from '../../core/recipe/model';
import { renderRecipe } from '../../core/recipe/recipe';
import { resolveViewpoint } from '../../core/recipe/viewpoint';
import type { FilmStore } from '../../core/film/store';
import type { Webs } from '../../core/scene/added-lamps';
import { countTriangles, type Scene } from '../../core/scene/scene';
import { openReducer } from '../../formats/reduce-mesh';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { openIndoors } from '../../kernel/host/indoors';
import { measureExposure, meterSettings } from '../../kernel/host/meter';
import { buildPack } from '../../kernel/host/pack';
import { buildRig, type PackedScene } from '../../kernel/host/rig';
import { type RenderEnd, type RenderHooks, renderFilm } from '../../kernel/host/render-film';
import { layOut, type RenderSettings } from '../../kernel/host/settings';
import { readPiece } from './pieces';
import { pictureReader } from './surface-pictures';
import { openPool, treeHelpers } from './node-threads';

export interface Prepared {
  packed: PackedScene;
  settings: RenderSettings;
  brief: Brief;
  ev100: number;
  white: number;
  ppi: number | null;
  triangles: number;
  layers: FilmLayers;
  /** No light can reach the picture. */
  dark: boolean;
}

export interface PrepareInput {
  scene: Scene;
  brief: Brief;
  captured: FloatImage | null;
  /** The photometric files that the brief's lamps name. */
  webs?: Webs;
  module: WebAssembly.Module;
  threads: number;
  /** Where the file of a picture on a surface lies; in the application by its hash. */
  pathOf?: (file: string) => string;
  /** An exposure metered before, to go on with exactly. */
  ev100?: number | null;
  /** Finds a pack made before, or has it made and keeps it. */
  findPack?: (input: PackInput, build: () => Uint8Array) => Promise<Uint8Array>;
}

export async function prepare(input: PrepareInput): Promise<Prepared> {
  const { brief, scene, module } = input;
  const pixels = proofPixels(brief);
  const { sheetWidth, sheetHeight, width, height } = pixels;
  const of = packInput(resolveViewpoint(scene, brief), brief);
  const model = await packedModel(scene, of, { openReducer, readPiece, readPicture: pictureReader(input.pathOf) });
  const { lit, layers, settings, exposure, dark } = renderRecipe({
    brief,
    scene,
    model,
    centre_m: of.centre_m,
    neutral: makeNeutralLight(brief, scene, input.captured),
    webs: input.webs ?? new Map(),
    width: sheetWidth,
    height: sheetHeight
  });
  const build = () => buildPack(model, module, () => performance.now(), treeHelpers(input.threads)).bytes;
  const pack = input.findPack ? await input.findPack(of, build) : build();
  const packed = { pack, rig: buildRig(pack, lit, module, settings.ground?.height_m) };
  const { camera, light } = settings;
  const indoors = light.image !== null && openIndoors(packed, module)(camera.eye, lit.openings ?? []);
  const whole: RenderSettings = { ...settings, indoors };
  const meter = () => meterFrame(packed, whole, module, input.threads);
  // an exposure metered before is gone on with exactly; a meter has nothing to read in the dark
  const ev100 = exposure.ev100 ?? (dark ? 0 : (input.ev100 ?? (await exposureBy(exposure, meter))));
  const { white, firefly } = exposed(exposure, ev100);
  const isWhole = width === sheetWidth && height === sheetHeight;
  return {
    dark,
    layers,
    packed,
    settings: { ...whole, width, height, camera: isWhole ? camera : cropFrame(camera, pixels), firefly, white },
    brief,
    ev100,
    white,
    ppi: proofPpi(brief),
    triangles: countTriangles(scene)
  };
}

async function meterFrame(
  packed: PackedScene,
  settings: RenderSettings,
  module: WebAssembly.Module,
  threads: number
): Promise<MeterReading> {
  const small = meterSettings(settings);
  const pool = openPool(module, layOut(packed, small, threads));
  try {
    return (await measureExposure(pool, small))!;
  } finally {
    await pool.close();
  }
}

export async function run(
  prepared: Prepared,
  film: FilmStore,
  module: WebAssembly.Module,
  threads: number,
  hooks: RenderHooks,
  secondsBefore = 0
): Promise<RenderEnd> {
  const { settings, brief } = prepared;
  const pool = openPool(module, layOut(prepared.packed, settings, threads));
  try {
    return await renderFilm(
      pool,
      film,
      tilesOf(settings.width, settings.height),
      {
        samples: brief.quality.samples,
        grain: brief.quality.grain,
        minSamples: brief.quality.min_samples,
        seconds: brief.quality.minutes == null ? null : Math.max(0, brief.quality.minutes * 60 - secondsBefore),
        white: prepared.white
      },
      hooks
    );
  } finally {
    await pool.close();
  }
}
