/**
 * The lamp sheet: six kinds of lamp before one plastered wall, each in a bay of its own, all of 800 lm. Drawn here and
 * not as a GLB, because glTF knows points and spots alone. node build/sheet-lamps.mjs OUT
 */
import { writeFile } from 'node:fs/promises';
import { BRIEF_DEFAULTS } from '../../src/core/brief/brief';
import { resampleWeb, webFlux } from '../../src/core/lights/web/web';
import type { Vec3 } from '../../src/core/math/vec3';
import { boundsOf, MATERIAL_DEFAULTS, NO_INSTANCES, type Scene, type SceneLight } from '../../src/core/scene/scene';
import { encodePng } from '../../src/formats/image/encode';
import { config } from '../../src/server/config';
import { MemoryDenoised } from '../../src/core/film/denoised';
import { MemoryFilm } from '../../src/core/film/store';
import { denoiseFilm } from '../../src/core/finishing/denoise/denoise-film';
import { developFilm } from '../../src/server/render/film-rows';
import { loadKernel } from '../../src/server/render/kernel-file';
import { openFilter } from '../../src/server/render/open-filter';
import { prepare, run } from '../../src/server/render/session';

const LUMENS = 800;
const BAY = 0.8;
const white = (v: number): Vec3 => [v, v * 0.86, v * 0.68];

/** Two wings at 35 degrees to the sides, little straight down: a wall washer's curve, invented. */
const wings = resampleWeb({
  planes: [0, 90, 180, 270],
  angles: Array.from({ length: 37 }, (_, i) => i * 5),
  candela: [0, 90, 180, 270].map((c) =>
    Array.from({ length: 37 }, (_, i) =>
      i > 17
        ? 0
        : c % 180 === 0
          ? 60 + 900 * Math.exp(-(((i * 5 - 35) / 13) ** 2))
          : 60 * Math.cos((i * 5 * Math.PI) / 180)
    )
  )
});

function lamps(): SceneLight[] {
  const at = (i: number, y: number): Vec3 => [(i - 2.5) * BAY, y, 0.22];
  const down: Vec3 = [0, -1, 0];
  const spotCd = LUMENS / (2 * Math.PI * (1 - Math.cos(0.5)));
  return [
    { kind: 'point', name: 'point', position: at(0, 1.0), intensity: white(LUMENS / (4 * Math.PI)) },
    {
      kind: 'spot',
      name: 'spot',
      position: at(1, 1.75),
      direction: [0, -1, -0.08],
      intensity: white(spotCd),
      innerAngle: 0.35,
      outerAngle: 0.62
    },
    {
      kind: 'sphere',
      name: 'globe',
      position: at(2, 1.0),
      radius: 0.09,
      radiance: white(LUMENS / (4 * Math.PI ** 2 * 0.09 ** 2))
    },
    {
      kind: 'disc',
      name: 'disc',
      position: at(3, 1.75),
      direction: down,
      radius: 0.12,
      radiance: white(LUMENS / (Math.PI ** 2 * 0.12 ** 2))
    },
    {
      kind: 'rectangle',
      name: 'strip',
      position: at(4, 1.0),
      direction: [0, 0, -1],
      up: [0, 1, 0],
      width: 0.05,
      height: 1.1,
      radiance: white(LUMENS / (Math.PI * 0.05 * 1.1))
    },
    {
      kind: 'web',
      name: 'web',
      position: at(5, 1.75),
      direction: down,
      plane: [1, 0, 0],
      tint: white(LUMENS / webFlux(wings)),
      web: wings
    }
  ];
}

function bays(): Scene {
  const positions: number[] = [];
  const normals: number[] = [];
  const indices: number[] = [];
  const quad = (a: Vec3, b: Vec3, c: Vec3, d: Vec3, n: Vec3) => {
    const first = positions.length / 3;
    positions.push(...a, ...b, ...c, ...d);
    for (let i = 0; i < 4; i++) normals.push(...n);
    indices.push(first, first + 1, first + 2, first, first + 2, first + 3);
  };
  const w = 3 * BAY;
  quad([-w, 0, 0], [w, 0, 0], [w, 2, 0], [-w, 2, 0], [0, 0, 1]);
  quad([-w, 0, 1.2], [w, 0, 1.2], [w, 0, 0], [-w, 0, 0], [0, 1, 0]);
  for (let i = 0; i <= 6; i++) {
    const x = -w + i * BAY;
    for (const side of [-1, 1] as const)
      quad(
        [x + side * 0.012, 0, 0.5],
        [x + side * 0.012, 0, 0],
        [x + side * 0.012, 2, 0],
        [x + side * 0.012, 2, 0.5],
        [side, 0, 0]
      );
    quad([x - 0.012, 0, 0.5], [x + 0.012, 0, 0.5], [x + 0.012, 2, 0.5], [x - 0.012, 2, 0.5], [0, 0, 1]);
  }
  const v = positions.length / 3;
  const geometry = {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    indices: Uint32Array.from(indices),
    tangents: new Float32Array(v * 4),
    uv0: new Float32Array(v * 2),
    uv1: new Float32Array(v * 2),
    colors: new Uint16Array(v * 4).fill(65_535),
    triangleMaterials: new Uint32Array(indices.length / 3)
  };
  return {
    ...NO_INSTANCES,
    geometry,
    materials: [{ ...MATERIAL_DEFAULTS, name: 'plaster', baseColor: [0.62, 0.61, 0.59, 1], roughness: 0.9 }],
    textures: [],
    lights: lamps(),
    cameras: [],
    bounds: boundsOf(geometry.positions)
  };
}

const brief = {
  ...BRIEF_DEFAULTS,
  viewpoint: {
    position_m: [0, 1, 5.2] as [number, number, number],
    target_m: [0, 1, 0] as [number, number, number],
    up: [0, 1, 0] as [number, number, number],
    projection: 'perspective' as const,
    focal_length_mm: 50,
    height_m: null,
    sensor_height_mm: 24,
    f_number: null,
    focus_m: null
  },
  surroundings: { kind: 'even' as const, color: [1, 1, 1] as [number, number, number], radiance: 0.4 },
  exposure: { ev100: 7.2 },
  size: { width_px: 1100, height_px: 470 },
  quality: { ...BRIEF_DEFAULTS.quality, samples: 64, bounces: 8 },
  finish: { ...BRIEF_DEFAULTS.finish, denoise: 1 }
};
const module = await loadKernel();
const prepared = await prepare({
  scene: bays(),
  brief: brief as never,
  captured: null,
  module,
  threads: config.threads
});
const film = new MemoryFilm();
await run(prepared, film, module, config.threads, {});
const { width, height } = prepared.settings;
const view = { film, layers: prepared.layers, width, height, white: prepared.white };
const denoised = new MemoryDenoised();
await denoiseFilm(view, (await openFilter(config.threads)).filter, denoised, () => {});
await writeFile(
  process.argv[2]!,
  await encodePng(
    await developFilm(
      { ...view, cleaned: { picture: denoised, layers: null } },
      { ...prepared.brief.finish, denoise: 1 }
    ),
    null,
    false
  )
);
process.exit(0);
