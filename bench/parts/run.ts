/**
 * What each part of the sampling is worth: efficiency, 1 / (grain2 x seconds of one thread), with everything on against
 * the same kernel with one part off, on the demo's pictures and its room in the evening; what stopping tile by tile
 * saves; and a hall with a hundred lamps against ten of the same power.
 */
import { BRIEF_DEFAULTS, type Brief } from '../../src/core/brief/brief';
import { createCameraFrame } from '../../src/core/camera/lens';
import { tilesOf } from '../../src/core/film/film';
import { boundsOf, MATERIAL_DEFAULTS, NO_INSTANCES, type Scene, type SceneLight } from '../../src/core/scene/scene';
import { DEMO_PROJECTS } from '../../src/demo/projects';
import { writeModel } from '../../src/drawing/write-model';
import { readScene } from '../../src/formats/gltf/read-scene';
import { WITHOUT_LIGHT_TREE, WITHOUT_LOW_DISCREPANCY } from '../../src/kernel/assembly/layout';
import { compileScene, type PackedScene } from '../../src/kernel/host/rig';
import { layOut, NO_LIMITS, type RenderSettings } from '../../src/kernel/host/settings';
import { MemoryFilm } from '../../src/core/film/store';
import { loadKernel } from '../../src/server/render/kernel-file';
import { openPool } from '../../src/server/render/node-threads';
import { renderFilm, type RenderGoal } from '../../src/kernel/host/render-film';
import { prepare } from '../../src/server/render/session';

const SIZE = { width_px: 128, height_px: 96 };
const SAMPLES = 32;
const SEEDS = 5;
const ONLY = process.env.SPHAERA_BENCH_SCENE ?? '';
const module = await loadKernel();

async function render(packed: PackedScene, settings: RenderSettings, goal: Partial<RenderGoal> & { white: number }) {
  const film = new MemoryFilm();
  const tiles = tilesOf(settings.width, settings.height);
  const pool = openPool(module, layOut(packed, settings, 1));
  await renderFilm(pool, new MemoryFilm(), tiles, { samples: 1, grain: null, seconds: null, white: 1 });
  const began = process.cpuUsage();
  const end = await renderFilm(pool, film, tiles, { samples: SAMPLES, grain: null, seconds: null, ...goal });
  const used = process.cpuUsage(began);
  await pool.close();
  const samples = tiles.map((t) => film.state(t.index)!.samples);
  return { grain: end.grain!, seconds: (used.user + used.system) / 1e6, samples };
}

/**
 * Efficiencies of the variants over that of the first: tile by tile in turn, the least time of a tile and the mean of
 * its squared grain over several seeds.
 */
async function compare(packed: PackedScene, variants: RenderSettings[], white: number): Promise<number[]> {
  const tiles = tilesOf(SIZE.width_px, SIZE.height_px);
  const seconds = variants.map(() => tiles.map(() => Number.POSITIVE_INFINITY));
  const grain = variants.map(() => 0);
  for (let seed = 1; seed <= SEEDS; seed++) {
    const pools = variants.map((settings) => openPool(module, layOut(packed, { ...settings, seed }, 1)));
    for (const pool of pools) await pool.render(tiles[0]!, 0, 2, null, white);
    for (const [i, tile] of tiles.entries()) {
      for (const k of variants.keys()) {
        const v = (k + i + seed) % variants.length;
        const done = await pools[v]!.render(tile, 0, SAMPLES, null, white);
        seconds[v]![i] = Math.min(seconds[v]![i]!, done.seconds);
        grain[v]! += done.squaredGrain;
      }
    }
    for (const pool of pools) await pool.close();
  }
  const cost = variants.map((_, v) => grain[v]! * seconds[v]!.reduce((sum, s) => sum + s, 0));
  return cost.map((c) => cost[0]! / c);
}

const pictures = DEMO_PROJECTS.flatMap(({ model, pictures }) =>
  pictures.map(({ name, brief }) => ({ model, name, brief }))
);
// the demo's rooms are seen by day; in the evening their lamps are all their light
const evenings = pictures
  .filter(({ name }) => name.startsWith('Reading room'))
  .map((p) => ({
    ...p,
    name: `${p.name}, evening`,
    brief: {
      ...p.brief,
      surroundings: { ...p.brief.surroundings, time: '2026-10-12T20:30:00+02:00' } as Brief['surroundings']
    }
  }));

const gain = (ratio: number) => (1 / ratio).toFixed(2);
console.log(
  '| picture | light tree | slight light left to chance | window panes | low-discrepancy points | ' +
    'stopping by tile: samples spared |\n| --- | --- | --- | --- | --- | --- |'
);
for (const { model, name, brief: own } of [...pictures, ...evenings].filter(({ name }) => name.includes(ONLY))) {
  const scene = await readScene(await writeModel(model()));
  const brief = { ...BRIEF_DEFAULTS, ...own, size: SIZE, quality: { ...own.quality, scale: 1 } };
  const { packed, settings, white } = await prepare({ scene, brief, captured: null, module, threads: 2 });
  const [, tree, slight, panes, points] = await compare(
    packed,
    [
      settings,
      { ...settings, without: WITHOUT_LIGHT_TREE },
      { ...settings, white: undefined },
      { ...settings, indoors: false },
      { ...settings, without: WITHOUT_LOW_DISCREPANCY }
    ],
    white
  );
  // tile by tile against every tile as long as the worst needs
  const probe = await render(packed, settings, { white, samples: SAMPLES });
  const { samples } = await render(packed, settings, { white, samples: 512, grain: probe.grain * 0.7 });
  const mean = samples.reduce((a, b) => a + b) / samples.length;
  console.log(
    `| ${name} | ${gain(tree!)} | ${gain(slight!)} | ${settings.indoors ? gain(panes!) : 'none'} | ` +
      `${gain(points!)} | ${(100 * (1 - mean / Math.max(...samples))).toFixed(0)} % |`
  );
}
console.log('times as efficient with the part on as with it off; 1 is no difference');

/** A hall of 20 x 10 m with `n` discs of the same power together under its ceiling. */
function hall(n: number): Scene {
  const quad = (a: number[], b: number[], c: number[], d: number[]) => [...a, ...b, ...c, ...d];
  const positions = Float32Array.from(
    [
      quad([0, 0, 10], [20, 0, 10], [20, 0, 0], [0, 0, 0]),
      quad([0, 4, 0], [20, 4, 0], [20, 4, 10], [0, 4, 10]),
      quad([0, 0, 0], [20, 0, 0], [20, 4, 0], [0, 4, 0]),
      quad([20, 0, 10], [0, 0, 10], [0, 4, 10], [20, 4, 10]),
      quad([0, 0, 10], [0, 0, 0], [0, 4, 0], [0, 4, 10]),
      quad([20, 0, 0], [20, 0, 10], [20, 4, 10], [20, 4, 0])
    ].flat()
  );
  const indices = Uint32Array.from({ length: 36 }, (_, i) => Math.floor(i / 6) * 4 + [0, 1, 2, 0, 2, 3][i % 6]!);
  const normals = Float32Array.from(
    [
      [0, 1, 0],
      [0, -1, 0],
      [0, 0, 1],
      [0, 0, -1],
      [1, 0, 0],
      [-1, 0, 0]
    ].flatMap((v) => [...v, ...v, ...v, ...v])
  );
  const columns = n === 10 ? 5 : 20;
  const lights: SceneLight[] = Array.from({ length: n }, (_, i) => {
    const rows = n / columns;
    const radiance = (400 * 10) / n;
    return {
      kind: 'disc',
      name: 'lamp',
      position: [((i % columns) + 0.5) * (20 / columns), 3.8, (Math.floor(i / columns) + 0.5) * (10 / rows)],
      direction: [0, -1, 0],
      radius: 0.15,
      radiance: [radiance, radiance, radiance]
    };
  });
  const v = positions.length / 3;
  return {
    ...NO_INSTANCES,
    geometry: {
      positions,
      normals,
      indices,
      tangents: new Float32Array(v * 4),
      uv0: new Float32Array(v * 2),
      uv1: new Float32Array(v * 2),
      colors: new Uint16Array(v * 4).fill(65_535),
      triangleMaterials: new Uint32Array(12)
    },
    materials: [{ ...MATERIAL_DEFAULTS, baseColor: [0.6, 0.6, 0.6, 1], specular: 0 }],
    textures: [],
    lights,
    cameras: [],
    bounds: boundsOf(positions)
  };
}

const view = createCameraFrame(
  {
    position_m: [1, 1.6, 1],
    target_m: [14, 1.2, 7],
    up: [0, 1, 0],
    projection: 'perspective',
    focal_length_mm: 24,
    height_m: null,
    sensor_height_mm: 24,
    f_number: null,
    focus_m: null
  } as never,
  4 / 3
)!;
const noiseTimes: number[] = [];
for (const n of [10, 100]) {
  const packed = compileScene(hall(n), module);
  const settings: RenderSettings = {
    width: SIZE.width_px,
    height: SIZE.height_px,
    camera: view,
    bounces: 6,
    limits: NO_LIMITS,
    layers: 0,
    aovs: null,
    firefly: 0,
    ground: null,
    seed: 1,
    light: { even: null, image: null, sun: null },
    indoors: false
  };
  const { grain, seconds } = await render(packed, settings, { white: 30, samples: 64 });
  noiseTimes.push(grain * grain * seconds);
}
console.log(
  `a hall with a hundred lamps takes ${(noiseTimes[1]! / noiseTimes[0]!).toFixed(2)} times as long to ` +
    `the same grain as with ten (2 is the limit)`
);
process.exit(0);
