/**
 * What the time of a path goes to on the demo scenes: a profile of one thread by function, and how many times what its
 * own rays take in the trees a whole path takes. The kernel is the one without further inlining, in which a function's
 * time is its own.
 */
import { readFile } from 'node:fs/promises';
import { Session } from 'node:inspector/promises';
import { BRIEF_DEFAULTS } from '../../src/core/brief/brief';
import { tilesOf } from '../../src/core/film/film';
import { MemoryFilm } from '../../src/core/film/store';
import { DEMO_PROJECTS } from '../../src/demo/projects';
import { writeModel } from '../../src/drawing/write-model';
import { readScene } from '../../src/formats/gltf/read-scene';
import { instantiate } from '../../src/kernel/host/kernel';
import { RenderPool } from '../../src/kernel/host/pool';
import { renderFilm } from '../../src/kernel/host/render-film';
import { layOut } from '../../src/kernel/host/settings';
import { doTileWork } from '../../src/kernel/host/tile-work';
import { config } from '../../src/server/config';
import { prepare } from '../../src/server/render/session';

const SIZE = { width_px: 192, height_px: 144 };
const SAMPLES = 32;
const INTERVAL_US = 200;
const SHOWN = 5;
const module = await WebAssembly.compile(await readFile(config.built('kernel-named.wasm')));
const session = new Session();
session.connect();
await session.post('Profiler.enable');
await session.post('Profiler.setSamplingInterval', { interval: INTERVAL_US });

console.log('| scene | a path takes, times its own rays | of its time: trees | and then |\n| --- | --- | --- | --- |');
for (const project of DEMO_PROJECTS) {
  const scene = await readScene(await writeModel(project.model()));
  const first = project.pictures[0]!.brief;
  const brief = { ...BRIEF_DEFAULTS, ...first, size: SIZE, quality: { ...first.quality, scale: 1 } };
  const { packed, settings } = await prepare({ scene, brief, captured: null, module, threads: 1 });
  const laidOut = layOut(packed, settings, 1);
  const kernel = instantiate(module, laidOut.memory, 0);
  // in this thread, where the profiler is
  const pool = new RenderPool(
    [{ work: async (work) => doTileWork(kernel, laidOut.memory, work), end: async () => {} }],
    laidOut
  );
  const tiles = tilesOf(SIZE.width_px, SIZE.height_px);
  const render = (samples: number) =>
    renderFilm(pool, new MemoryFilm(), tiles, { samples, grain: null, seconds: null, white: 1 });
  await render(4);
  await session.post('Profiler.start');
  await render(SAMPLES);
  const { profile } = await session.post('Profiler.stop');
  const names = new Map(profile.nodes.map(({ id, callFrame }) => [id, callFrame.functionName]));
  const times = new Map<string, number>();
  profile.samples!.forEach((id, i) => {
    const own = /assembly\/(.*)$/.exec(names.get(id)!)?.[1];
    if (own) times.set(own, (times.get(own) ?? 0) + profile.timeDeltas![i]!);
  });
  const all = [...times.values()].reduce((a, b) => a + b);
  const trees = [...times].reduce((sum, [name, t]) => sum + (name.startsWith('traverse/') ? t : 0), 0);
  const percent = (t: number) => `${((100 * t) / all).toFixed(0)} %`;
  const most = [...times]
    .filter(([name]) => !name.startsWith('traverse/'))
    .sort((a, b) => b[1] - a[1])
    .slice(0, SHOWN);
  console.log(
    `| ${project.name} | ${(all / trees).toFixed(2)} | ${percent(trees)} | ${most.map(([name, t]) => `${name} ${percent(t)}`).join(', ')} |`
  );
}
process.exit(0);
