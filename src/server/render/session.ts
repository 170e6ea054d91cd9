/**
 * A render from model to film, whoever asked for it: prepares, meters when the brief says so, opens threads, runs to the end
 * or the stop. The film's bytes depend on scene, brief and sample map alone.
 */
import type { Brief } from '../../core/brief/brief';
import { meter, whiteLuminance } from '../../core/brief/exposure';
import { CHANNELS, type FilmLayers, tilesOf } from '../../core/film/film';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';
import { centreFor, recentreCamera, recentreScene } from '../../core/scene/recentre';
import { groupLights } from '../../core/scene/light-groups';
import { length, subtract } from '../../core/math/vec3';
import { partNames, type Scene } from '../../core/scene/scene';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { standsIndoors } from '../../kernel/host/indoors';
import { buildPack } from '../../kernel/host/pack';
import { layOut, NO_LIMITS, type PathLimits, type RenderSettings } from '../../kernel/host/settings';
import { type FilmStore, MemoryFilm } from '../files/film-store';
import { RenderPool } from './pool';
import { fireflyLimit, makeLight, proofSize, resolveCamera, resolveViewpoint, withStudio } from './prepare';
import { type RenderEnd, type RenderHooks, renderFilm } from './render-film';

export interface Prepared {
  pack: Uint8Array;
  settings: RenderSettings;
  brief: Brief;
  ev100: number;
  white: number;
  ppi: number | null;
  triangles: number;
  layers: FilmLayers;
}

const METER_LONG_SIDE_PX = 96;
const METER_SAMPLES = 16;
// A meter makes grey of a studio's paper; opened by this it looks like paper (common practice, no source).
const PAPER_EV = 0.9;
// Of the model's diagonal; what lies farther off does not make a place less open.
const OPENNESS_REACH = 0.1;

export interface PrepareInput {
  scene: Scene;
  brief: Brief;
  captured: FloatImage | null;
  module: WebAssembly.Module;
  threads: number;
  /** An exposure metered before, to go on with exactly. */
  ev100?: number | null;
}

export async function prepare(input: PrepareInput): Promise<Prepared> {
  const { brief, scene, module } = input;
  const view = resolveViewpoint(scene, brief);
  const { width, height, ppi } = proofSize(brief);
  const seen = resolveCamera(view, width, height);
  const centre = centreFor(seen.eye);
  const camera = recentreCamera(seen, centre);
  const light = makeLight(brief, scene, input.captured);
  const lit = recentreScene(withStudio(scene, brief, view), centre);
  const layers: FilmLayers = {
    groups: brief.quality.layers ? groupLights(lit).names : [],
    aids: brief.quality.aids ? { objects: partNames(lit), materials: lit.materials.map((m) => m.name) } : null
  };
  const { bytes, triangles } = buildPack(lit, module, () => performance.now());
  const base: RenderSettings = { width, height, camera, bounces: brief.quality.bounces, limits: { ...NO_LIMITS, ...definedOf(brief.quality) }, layers: layers.groups.length, aids: layers.aids && { openness_m: OPENNESS_REACH * length(subtract(scene.bounds.max, scene.bounds.min)) }, firefly: 0, clay: brief.look.kind === 'clay', seed: 1, light, indoors: light.image !== null && standsIndoors(bytes, module, camera.eye) };
  const ev100 = 'ev100' in brief.exposure ? brief.exposure.ev100 : (input.ev100 ?? (await measureExposure(bytes, base, module, input.threads)) - (brief.surroundings.kind === 'studio' ? PAPER_EV : 0));
  return { layers, pack: bytes, settings: { ...base, firefly: fireflyLimit(brief, ev100) }, brief, ev100, white: whiteLuminance(ev100), ppi, triangles };
}

/** Meters a small quick picture of the same frame; deterministic, so the same brief meters the same anywhere. */
async function measureExposure(pack: Uint8Array, settings: RenderSettings, module: WebAssembly.Module, threads: number): Promise<number> {
  const share = METER_LONG_SIDE_PX / Math.max(settings.width, settings.height);
  const width = Math.max(1, Math.round(settings.width * share));
  const height = Math.max(1, Math.round(settings.height * share));
  const film = new MemoryFilm();
  const tiles = tilesOf(width, height);
  const pool = new RenderPool(module, layOut(pack, { ...settings, width, height, bounces: Math.min(settings.bounces, 6), layers: 0, aids: null }, threads));
  try {
    await renderFilm(pool, film, tiles, { samples: METER_SAMPLES, grain: null, seconds: null, white: 1 });
  } finally {
    await pool.close();
  }
  const luminances: number[] = [];
  for (const tile of tiles) {
    const data = await film.read(tile.index);
    for (let i = 0; i < tile.width * tile.height; i++) {
      const p = i * CHANNELS;
      luminances.push((0.2126 * (data[p]! + data[p + 3]!) + 0.7152 * (data[p + 1]! + data[p + 4]!) + 0.0722 * (data[p + 2]! + data[p + 5]!)) / METER_SAMPLES);
    }
  }
  return meter(luminances);
}

/** Briefs of older data lack some limits; those have their defaults. */
function definedOf({ diffuse, gloss, glass, passes, filter_px, glow }: Partial<PathLimits>): Partial<PathLimits> {
  return Object.fromEntries(Object.entries({ diffuse, gloss, glass, passes, filter_px, glow }).filter(([, v]) => v !== undefined));
}

/** Whether any light can reach the picture at all. */
export function isDark(light: SurroundingsLight, scene: Scene): boolean {
  const sky = light.image !== null || (light.even?.some((c) => c > 0) ?? false) || light.sun !== null;
  return !sky && scene.lights.length === 0 && scene.materials.every((m) => m.emissive.every((c) => c === 0));
}

export async function run(prepared: Prepared, film: FilmStore, module: WebAssembly.Module, threads: number, hooks: RenderHooks, secondsBefore = 0): Promise<RenderEnd> {
  const { settings, brief } = prepared;
  const pool = new RenderPool(module, layOut(prepared.pack, settings, threads));
  try {
    return await renderFilm(pool, film, tilesOf(settings.width, settings.height), { samples: brief.quality.samples, grain: brief.quality.grain, seconds: brief.quality.minutes == null ? null : Math.max(0, brief.quality.minutes * 60 - secondsBefore), white: prepared.white }, hooks);
  } finally {
    await pool.close();
  }
}

