import { luminance, luminanceAt } from '../../core/color/spaces';
import type { ImportanceGrid } from '../../core/lights/captured/importance';
import { imageLevels, levelCount, valuesWithLevels } from '../../core/lights/captured/levels';
import { litShare } from '../../core/lights/moon/position';
import { limbMean } from '../../core/lights/sun/limb';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';
import { tileFloats } from '../../core/film/film';
import type { RenderSettings } from '../../core/recipe/render-settings';
import { invertPixelFilter } from '../../core/sampling/pixel-filter';
import * as L from '../assembly/layout';
import { behindScene, createMemory, placeScene } from './kernel';
import type { PackedScene } from './rig';

export type { GroundSettings, PathLimits, RenderSettings } from '../../core/recipe/render-settings';
export { NO_LIMITS } from '../../core/recipe/render-settings';

// Of displayed white: what a shadow ray may at least bring if it is always cast.
const SLIGHT = 0.01;

// A moon that is next to new would be as bright as the sun.
const MIN_LIT = 1e-3;

export const tileBytes = (layers: number) => tileFloats(L.TILE * L.TILE, layers) * 4;

export interface LaidOut {
  memory: WebAssembly.Memory;
  /** Address of each thread's tile buffer. */
  buffers: number[];
  layers: number;
}

/** Cells of the importance grid that a lobe's quarter must cover each way for their means to stand for the image. */
const CELLS_TOGETHER = 2;

const align = (n: number) => (n + 255) & ~255;

const layersOf = ({ layers, aovs }: Pick<RenderSettings, 'layers' | 'aovs'>) => layers + (aovs ? L.AOV_LAYERS : 0);

/** Bytes of memory that a render needs. `sceneEnd`: see behindScene. */
export function memoryFor(sceneEnd: number, light: SurroundingsLight, threads: number, layers = 0): number {
  const image = light.image;
  const surroundings =
    (image ? align(valuesWithLevels(image.width, image.height) * 4) + align(gridBytes(image.grid)) : 0) +
    align(light.stars?.clear?.byteLength ?? 0);
  return sceneEnd + surroundings + threads * align(tileBytes(layers)) + 65_536;
}

/** A memory of its own for one render. */
export function layOut(scene: PackedScene, settings: RenderSettings, threads: number): LaidOut {
  const end = behindScene(scene.pack.byteLength, scene.rig.byteLength);
  const memory = createMemory(memoryFor(end, settings.light, threads, layersOf(settings)));
  placeScene(memory, scene);
  return writeSettings(memory, end, settings, threads);
}

const gridBytes = ({ width, height }: ImportanceGrid): number => width * height * L.GRID_CELL_BYTES + (height + 1) * 4;

/**
 * Settings and surroundings into a memory that holds a scene already, up to `sceneEnd`; no thread may be at work in it.
 */
export function writeSettings(
  memory: WebAssembly.Memory,
  sceneEnd: number,
  settings: RenderSettings,
  threads: number
): LaidOut {
  const needed = memoryFor(sceneEnd, settings.light, threads, layersOf(settings));
  if (memory.buffer.byteLength < needed)
    throw new RangeError(`writeSettings: expected ${needed} bytes of memory, got ${memory.buffer.byteLength}`);
  const f32 = new Float32Array(memory.buffer);
  const u32 = new Uint32Array(memory.buffer);
  const s = L.SETTINGS >> 2;
  const { camera, light } = settings;
  u32.fill(0, s, s + L.S_FILTER_TABLE / 4);
  let top = sceneEnd;
  u32[s + L.S_WIDTH / 4] = settings.width;
  u32[s + L.S_HEIGHT / 4] = settings.height;
  u32[s + L.S_PROJECTION / 4] = camera.parallel ? L.PROJECTION_PARALLEL : camera.panorama ? L.PROJECTION_PANORAMA : 0;
  u32[s + L.S_BOUNCES / 4] = settings.bounces;
  f32.set(camera.eye, s + L.S_EYE / 4);
  f32.set(camera.right, s + L.S_RIGHT / 4);
  f32.set(camera.up, s + L.S_UP / 4);
  f32.set(camera.forward, s + L.S_FORWARD / 4);
  f32[s + L.S_HALF_WIDTH / 4] = camera.halfWidth;
  f32[s + L.S_HALF_HEIGHT / 4] = camera.halfHeight;
  f32.set(camera.shift, s + L.S_SHIFT_X / 4);
  f32[s + L.S_LENS_RADIUS / 4] = camera.lensRadius;
  f32[s + L.S_FOCUS / 4] = camera.focus;
  f32[s + L.S_FIREFLY / 4] = settings.firefly;
  const threshold = SLIGHT * (settings.white ?? 0);
  f32[s + L.S_CONTRIBUTION_THRESHOLD / 4] = threshold;
  // found by what scatters towards them; never more than slight
  const belowThreshold = threshold > 0 && brightest(light) <= threshold;
  u32[s + L.S_SKY_BELOW_THRESHOLD / 4] = belowThreshold ? 1 : 0;
  u32[s + L.S_SEED / 4] = settings.seed;
  const { limits } = settings;
  for (const [at, limit] of [
    [L.S_DIFFUSE, limits.diffuse_bounces],
    [L.S_GLOSS, limits.specular_bounces],
    [L.S_GLASS, limits.transmission_bounces]
  ] as const)
    u32[s + at / 4] = limit ?? L.NO_LIMIT;
  u32[s + L.S_TRANSPARENT_BOUNCES / 4] = limits.transparent_bounces;
  u32[s + L.S_GLOW / 4] = limits.emissive_lights ? 1 : 0;
  u32[s + L.S_LAYERS / 4] = settings.layers;
  u32[s + L.S_WITHOUT / 4] = settings.without ?? 0;
  if (settings.section) f32.set([...settings.section.normal, settings.section.distance], s + L.S_SECTION / 4);
  u32[s + L.S_OPEN_BACKS / 4] = settings.openBacks ? 1 : 0;
  u32[s + L.S_UNMIRRORED / 4] = settings.unmirrored ? 1 : 0;
  u32[s + L.S_AOVS / 4] = settings.aovs ? 1 : 0;
  f32[s + L.S_AMBIENT_OCCLUSION / 4] = settings.aovs?.ambient_occlusion_m ?? 0;
  u32[s + L.S_PORTALS / 4] = settings.indoors && !belowThreshold && u32[(L.PACK + L.P_PORTAL_COUNT) >> 2]! > 0 ? 1 : 0;
  if (settings.ground) {
    const { height_m, middle_m, fade_m, polish, roughness, irradiance } = settings.ground;
    u32[s + L.S_GROUND / 4] = 1;
    f32.set([height_m, ...middle_m, ...fade_m, polish, roughness, ...irradiance], s + L.S_GROUND_HEIGHT / 4);
  }
  f32.set(invertPixelFilter(settings.limits.filter_px, L.FILTER_STEPS), s + L.S_FILTER_TABLE / 4);
  u32[s + L.S_ENV_KIND / 4] = light.image ? L.ENV_IMAGE : light.even ? L.ENV_EVEN : L.ENV_NONE;
  if (light.even) f32.set(light.even, s + L.S_EVEN / 4);
  if (light.image) {
    const { image } = light;
    const { grid } = image;
    u32[s + L.S_ENV_PTR / 4] = top;
    u32[s + L.S_ENV_LEVELS / 4] = levelCount(image.width, image.height);
    let at = top >> 2;
    for (const { pixels } of [image, ...imageLevels(image)]) {
      f32.set(pixels, at);
      at += pixels.length;
    }
    u32[s + L.S_ENV_WIDTH / 4] = image.width;
    u32[s + L.S_ENV_HEIGHT / 4] = image.height;
    f32[s + L.S_ENV_SCALE / 4] = image.scale;
    f32[s + L.S_ENV_COS / 4] = Math.cos(image.rotation);
    f32[s + L.S_ENV_SIN / 4] = Math.sin(image.rotation);
    top += align(valuesWithLevels(image.width, image.height) * 4);
    u32[s + L.S_GRID_PTR / 4] = top;
    u32[s + L.S_GRID_WIDTH / 4] = grid.width;
    u32[s + L.S_GRID_HEIGHT / 4] = grid.height;
    // the quarter of a lobe that scattered light sees together covers CELLS_TOGETHER cells each way
    f32[s + L.S_GRID_DENSITY / 4] = (0.25 / ((CELLS_TOGETHER * Math.PI) / grid.height)) ** 2;
    const edges = Array.from({ length: grid.height + 1 }, (_, row) => Math.cos((Math.PI * row) / grid.height));
    let o = top >> 2;
    for (let row = 0, i = 0; row < grid.height; row++) {
      const solidAngle = ((edges[row]! - edges[row + 1]!) * 2 * Math.PI) / grid.width;
      for (let column = 0; column < grid.width; column++, i++, o += L.GRID_CELL_BYTES / 4) {
        f32[o] = grid.probability[i]! / solidAngle;
        f32[o + 1] = grid.threshold[i]!;
        u32[o + 2] = grid.alias[i]!;
        f32.set(grid.mean.subarray(i * 3, i * 3 + 3), o + L.GRID_MEAN / 4);
      }
    }
    f32.set(edges, o);
    top += align(gridBytes(grid));
  }
  if (light.sun) {
    u32[s + L.S_SUN / 4] = 1;
    const { direction, radiance, oneMinusCos, limb, moon } = light.sun;
    f32.set(direction, s + L.S_SUN_DIRECTION / 4);
    // from the disc's mean to what its middle, or its lit part, has
    f32.set(
      radiance.map((c, k) => (limb ? c / limbMean(limb[k]!) : moon ? c / Math.max(MIN_LIT, litShare(moon.phase)) : c)),
      s + L.S_SUN_RADIANCE / 4
    );
    f32[s + L.S_SUN_COS / 4] = oneMinusCos;
    if (limb) f32.set(limb, s + L.S_DISC_LIMB / 4);
    if (moon) {
      u32[s + L.S_MOON / 4] = 1;
      f32.set(moon.side, s + L.S_MOON_SIDE / 4);
      f32[s + L.S_MOON_COS / 4] = Math.cos(moon.phase);
    }
  }
  if (light.stars) {
    f32[s + L.S_STARS / 4] = light.stars.gain;
    f32.set(light.stars.axes.flat(), s + L.S_STARS_AXES / 4);
    if (light.stars.clear) {
      new Uint8Array(memory.buffer).set(light.stars.clear, top);
      u32[s + L.S_STARS_CLEAR / 4] = top;
      top += align(light.stars.clear.byteLength);
    }
  }
  const buffers = Array.from({ length: threads }, (_, i) => top + i * align(tileBytes(layersOf(settings))));
  return { memory, buffers, layers: layersOf(settings) };
}

/** Luminance of the brightest part of the surroundings, cd/m2; not of the sun, the moon and the stars. */
function brightest({ even, image }: SurroundingsLight): number {
  let most = even ? luminance(even) : 0;
  if (image)
    for (let i = 0; i < image.pixels.length; i += 3) most = Math.max(most, image.scale * luminanceAt(image.pixels, i));
  return most;
}
