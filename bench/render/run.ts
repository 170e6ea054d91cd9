/**
 * Whole paths on the three demo scenes at their briefs' own exposure, which decides what light is slight: samples and
 * rays a second with one thread and with all; the CPU time a ray takes with all to what it takes with one; the same of
 * as many renders of one thread each that share nothing, which the machine takes; and how many times what as many
 * camera, bounce and shadow rays take in the room of the traversal bench. In turn, and each turn's shares by itself,
 * because what else runs on the machine comes and goes: median (least to most). Other figures are of the best turn.
 */
import { BRIEF_DEFAULTS } from '../../src/core/brief/brief';
import { type TileRect, tilesOf } from '../../src/core/film/film';
import { DEMO_PROJECTS } from '../../src/demo/projects';
import { writeModel } from '../../src/drawing/write-model';
import { readScene } from '../../src/formats/gltf/read-scene';
import { layOut } from '../../src/kernel/host/settings';
import { config } from '../../src/server/config';
import { MemoryFilm } from '../../src/core/film/store';
import { median } from '../../src/core/forecast/forecast';
import { loadKernel } from '../../src/server/render/kernel-file';
import type { RenderPool, TilePool } from '../../src/kernel/host/pool';
import { openPool } from '../../src/server/render/node-threads';
import { renderFilm } from '../../src/kernel/host/render-film';
import { prepare } from '../../src/server/render/session';
import { openBenchRoom, type Speeds } from '../traversal/room';

const SIZE = { width_px: 384, height_px: 288 };
const SAMPLES = 16;
/**
 * There and back: the bench's room, one thread, all, as many renders apart, and the same again from the end. What
 * drifts evenly meanwhile falls out of the shares.
 */
const TURNS = 5;
/** Of the bench's room: one takes half a second, a run ten times that. */
const RAY_SETS = 3;

/** Of one render; of several at once their mean. */
interface Run {
  rays: number;
  shadowRays: number;
  /** CPU time of all threads and of what hands them their tiles. */
  micros: number;
  seconds: number;
}

/** Renders a scene again and again, at once in so many pools. */
class Runner {
  constructor(
    readonly pools: readonly RenderPool[],
    private readonly tiles: readonly TileRect[]
  ) {}

  async run(samples: number): Promise<Run> {
    const count = this.pools.length;
    let shadowRays = 0;
    const began = process.cpuUsage();
    const ends = await Promise.all(
      this.pools.map((pool) => {
        const counting: TilePool = {
          threads: pool.threads,
          layers: pool.layers,
          render: async (...work) => {
            const done = await pool.render(...work);
            shadowRays += done.shadowRays;
            return done;
          }
        };
        return renderFilm(counting, new MemoryFilm(), this.tiles, { samples, grain: null, seconds: null, white: 1 });
      })
    );
    const { user, system } = process.cpuUsage(began);
    return {
      rays: ends[0]!.rays,
      shadowRays: shadowRays / count,
      micros: (user + system) / count,
      seconds: Math.max(...ends.map((end) => end.seconds))
    };
  }
}

const mean = (a: Run, b: Run): Run => ({
  rays: a.rays,
  shadowRays: a.shadowRays,
  micros: (a.micros + b.micros) / 2,
  seconds: (a.seconds + b.seconds) / 2
});

/**
 * Microseconds that as many rays of each kind take in the bench's room. A path's first ray is the camera's; speeds are
 * million rays/s.
 */
const inTheRoom = ({ rays, shadowRays }: Run, samples: number, { camera, bounce, shadow }: Speeds) =>
  samples / camera + (rays - samples - shadowRays) / bounce + shadowRays / shadow;

const spread = (values: number[], digits: number) =>
  `${median(values).toFixed(digits)} (${Math.min(...values).toFixed(digits)} to ${Math.max(...values).toFixed(digits)})`;

const module = await loadKernel();
const room = openBenchRoom(module);
const raySets = () => Array.from({ length: RAY_SETS }, () => room.speeds());
raySets();
console.log(
  '| scene | triangles | threads | samples/s | million rays/s | rays a sample | CPU µs a ray | CPU a ' +
    "ray to one thread's | the same of renders that share nothing | times its rays in the bench's room " +
    '|\n| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |'
);
for (const project of DEMO_PROJECTS) {
  const scene = await readScene(await writeModel(project.model()));
  const brief = {
    ...BRIEF_DEFAULTS,
    ...project.pictures[0]!.brief,
    size: SIZE,
    quality: { ...project.pictures[0]!.brief.quality, scale: 1 }
  };
  const prepared = await prepare({ scene, brief, captured: null, module, threads: 1 });
  const tiles = tilesOf(SIZE.width_px, SIZE.height_px);
  const open = (threads: number) => openPool(module, layOut(prepared.packed, prepared.settings, threads));
  const apart = new Runner(
    Array.from({ length: config.threads }, () => open(1)),
    tiles
  );
  const listed = (config.threads > 1 ? [1, config.threads] : [1]).map((threads) => new Runner([open(threads)], tiles));
  const runners = [...listed, apart];
  for (const runner of runners) await runner.run(1); // compiles and warms
  const turns: { speeds: Speeds; runs: Run[] }[] = [];
  for (let turn = 0; turn < TURNS; turn++) {
    const sets = raySets();
    const there: Run[] = [];
    for (const runner of runners) there.push(await runner.run(SAMPLES));
    const back: Run[] = [];
    for (const runner of runners.toReversed()) back.unshift(await runner.run(SAMPLES));
    sets.push(...raySets());
    const speedOf = (kind: keyof Speeds) => median(sets.map((set) => set[kind]));
    turns.push({
      speeds: { camera: speedOf('camera'), bounce: speedOf('bounce'), shadow: speedOf('shadow') },
      runs: there.map((run, i) => mean(run, back[i]!))
    });
  }
  const samples = SIZE.width_px * SIZE.height_px * SAMPLES;
  const toOneOf = (k: number) => turns.map(({ runs }) => runs[k]!.micros / runs[0]!.micros);
  for (const [i, { pools }] of listed.entries()) {
    const { rays } = turns[0]!.runs[i]!;
    const micros = Math.min(...turns.map(({ runs }) => runs[i]!.micros));
    const seconds = Math.min(...turns.map(({ runs }) => runs[i]!.seconds));
    const toRays = turns.map(({ speeds, runs }) => runs[i]!.micros / inTheRoom(runs[i]!, samples, speeds));
    console.log(
      `| ${project.name} | ${prepared.triangles} | ${pools[0]!.threads} | ` +
        `${Math.round(samples / seconds).toLocaleString('en')} | ${(rays / seconds / 1e6).toFixed(2)} | ` +
        `${(rays / samples).toFixed(1)} | ${(micros / rays).toFixed(2)} | ${spread(toOneOf(i), 3)} | ` +
        `${spread(toOneOf(i === 0 ? 0 : listed.length), 3)} | ${spread(toRays, 2)} |`
    );
  }
  for (const pool of runners.flatMap(({ pools }) => pools)) await pool.close();
}
process.exit(0);
