/**
 * A render from model to film, whoever asked for it: prepares, meters when the brief says so, opens threads, runs to
 * the end or the stop. The film's bytes depend on scene, brief and sample map alone.
 */
import type { Brief } from '../../core/brief/brief';
import { statedEv, whiteLuminance } from '../../core/brief/exposure';
import { type FilmLayers, tilesOf } from '../../core/film/film';
import { cropFrame } from '../../core/camera/lens';
import { proofPixels } from '../../core/output/size';
import type { FilmStore } from '../../core/film/store';
import type { Webs } from '../../core/scene/added-lamps';
import { groupLights } from '../../core/scene/light-groups';
import { recentreCamera } from '../../core/scene/recentre';
import { countTriangles, partNames, type Scene } from '../../core/scene/scene';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { openIndoors } from '../../kernel/host/indoors';
import { measureExposure, meterSettings } from '../../kernel/host/meter';
import { buildPack } from '../../kernel/host/pack';
import { buildRig, type PackedScene } from '../../kernel/host/rig';
import { type RenderEnd, type RenderHooks, renderFilm } from '../../kernel/host/render-film';
import { layOut, type RenderSettings } from '../../kernel/host/settings';
import { openPool, treeHelpers } from './node-threads';
import {
  exposureFor,
  fireflyLimit,
  groundFor,
  isDark,
  lightModel,
  makeLight,
  type PackInput,
  packedModel,
  packInput,
  proofPpi,
  resolveCamera,
  resolveViewpoint,
  settingsFor
} from './prepare';

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
  /** An exposure metered before, to go on with exactly. */
  ev100?: number | null;
  /** Finds a pack made before, or has it made and keeps it. */
  findPack?: (input: PackInput, build: () => Uint8Array) => Promise<Uint8Array>;
}

export async function prepare(input: PrepareInput): Promise<Prepared> {
  const { brief, scene, module } = input;
  const view = resolveViewpoint(scene, brief);
  const pixels = proofPixels(brief);
  const { sheetWidth, sheetHeight, width, height } = pixels;
  const of = packInput(view, brief);
  const camera = recentreCamera(resolveCamera(view, sheetWidth, sheetHeight), of.centre_m);
  const light = makeLight(brief, scene, input.captured);
  const model = await packedModel(scene, of);
  const lit = lightModel(model, brief, camera.eye, of.centre_m, input.webs ?? new Map());
  const ground = groundFor(brief, model, light, of.centre_m);
  const layers: FilmLayers = {
    groups: brief.quality.layers ? groupLights(lit).names : [],
    aovs: brief.quality.aovs ? { objects: partNames(lit), materials: lit.materials.map((m) => m.name) } : null
  };
  const build = () => buildPack(model, module, () => performance.now(), treeHelpers(input.threads)).bytes;
  const pack = input.findPack ? await input.findPack(of, build) : build();
  const packed = { pack, rig: buildRig(pack, lit, module, ground?.height_m) };
  const base: RenderSettings = {
    ...settingsFor(brief, scene, {
      width: sheetWidth,
      height: sheetHeight,
      camera,
      light,
      layers: layers.groups.length,
      ground
    }),
    indoors: light.image !== null && openIndoors(packed, module)(camera.eye, lit.openings ?? [])
  };
  const dark = isDark(light, lit);
  // a meter has nothing to read in the dark
  const ev100 =
    statedEv(brief.exposure) ??
    (dark ? 0 : (input.ev100 ?? exposureFor(brief, await meterFrame(packed, base, module, input.threads))));
  const white = whiteLuminance(ev100);
  return {
    dark,
    layers,
    packed,
    settings: {
      ...base,
      width,
      height,
      camera: width === sheetWidth && height === sheetHeight ? camera : cropFrame(camera, pixels),
      firefly: fireflyLimit(brief, ev100),
      white
    },
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
): Promise<number> {
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
