/**
 * Directs the preview in a worker of its own: asks the server what the brief needs, holds the scene pack in shared memory, has the
 * tracers render, and hands pictures to the page. A newer order ends the work under way at its next tile.
 *
 * The way of a picture: a quick look at half size with one sample a pixel; the meter, when the brief has one; then the very film that a
 * proof of this size would be, pass by pass.
 */
import { canonicalJson } from '../../../core/brief/brief';
import { whiteLuminance } from '../../../core/brief/exposure';
import { passEnds, type TileRect, tilesOf } from '../../../core/film/film';
import { filmBytes } from '../../../core/film/film-bytes';
import { MemoryFilm } from '../../../core/film/store';
import type { SurroundingsLight } from '../../../core/lights/surroundings-light';
import type { Vec3 } from '../../../core/math/vec3';
import { recentreCamera } from '../../../core/scene/recentre';
import { createMemory, PACK_AT } from '../../../kernel/host/kernel';
import { measureExposure, meterBlock, meterFilm, meterSettings } from '../../../kernel/host/meter';
import { RenderPool } from '../../../kernel/host/pool';
import { renderFilm } from '../../../kernel/host/render-film';
import { memoryFor, type RenderSettings, writeSettings } from '../../../kernel/host/settings';
import { decodeSetup, type RenderSetup } from '../../../kernel/host/setup';
import { developPicture } from './develop-picture';
import type { Order, PreviewJob, PreviewPicture, Report } from './messages';
import { WebThread } from './web-threads';

const scope = self as unknown as { onmessage: ((event: MessageEvent<Order>) => void) | null; postMessage(message: Report, transfer?: Transferable[]): void };

const REST_MS = 300;
const STEADY_MS = 500;
// A first look is there to be quick: light of later bounces adds little to it.
const LOOK_BOUNCES = 2;
// Small pieces of work, so that a newer order waits no longer than one of them.
const UNIT_SAMPLES = 1;
// What the surroundings may grow to without a new memory: the largest sky and then some.
const SURROUNDINGS_ROOM = 4 * 2 ** 20;
const LOOK_MS = 700;
// Of the time since the last look, making one may take this share.
const LOOK_SHARE = 0.2;

interface Loaded {
  key: string;
  bytes: number;
  memory: WebAssembly.Memory;
  members: WebThread[];
}

let threads = 1;
let wanted = null as { job: PreviewJob; began: number } | null;
let ready = null as PreviewJob | null;
let paused = false;
let wake: (() => void) | null = null;
let loaded: Loaded | null = null;
let light: { key: string; light: SurroundingsLight } | null = null;
let module: Promise<WebAssembly.Module> | null = null;
let lastEv: number | null = null;
let lastLook = 0;
/** Exposures by what they were metered of. */
const metered = new Map<string, number>();

scope.onmessage = ({ data: order }) => {
  if (order.kind === 'threads') threads = order.threads;
  else if (order.kind === 'pause') paused = order.paused;
  else if (order.kind === 'get ready') ready = order.job;
  else wanted = order.job && { job: order.job, began: performance.now() };
  wake?.();
};

const change = () => new Promise<void>((resolve) => {
  wake = resolve;
});

void (async () => {
  let done: typeof wanted = null;
  for (;;) {
    const order = wanted;
    if (order && order !== done && !paused) {
      done = order;
      await show(order.job, order.began).catch((error: unknown) => refuse(order.job, error));
    } else if (ready && !paused) {
      const job = ready;
      ready = null;
      await ask(job, true).then((setup) => load(setup)).catch(() => {}); // said when it is wanted
    } else await change();
  }
})();

function refuse(job: PreviewJob, error: unknown): void {
  if (error instanceof RangeError) drop();
  scope.postMessage({ kind: 'refused', job: job.id, message: error instanceof RangeError ? `it needs more memory than this browser gives (${error.message})` : error instanceof Error ? error.message : String(error) });
}

/**
 * Waits until the hand rests; false when the order is not to be followed. While light or material changes on and on, an order is followed
 * now and then before that: what has been asked for it is there, and its first look stands for the newer ones.
 */
async function comesToRest(job: PreviewJob): Promise<boolean> {
  for (;;) {
    if (wanted?.job.frame !== job.frame) return false;
    if (wanted.job !== job) return performance.now() - lastLook > STEADY_MS;
    const left = wanted.began + REST_MS - performance.now();
    if (left <= 0 && !paused) return true;
    await Promise.race([change(), new Promise((resolve) => setTimeout(resolve, Math.max(left, 10)))]);
  }
}

async function show(job: PreviewJob, began: number): Promise<void> {
  const stale = () => wanted?.job !== job;
  const otherFrame = () => wanted?.job.frame !== job.frame;
  const halt = () => stale() || paused;
  /** False when the order is no longer wanted; else waits through a pause. */
  const goesOn = async () => {
    while (paused && !stale()) await change();
    return !stale();
  };
  const seconds = () => (performance.now() - began) / 1000;

  let setup = await ask(job, false);
  if (!(await comesToRest(job))) return;
  let scene = await load(setup);
  const poolFor = (settings: RenderSettings) => new RenderPool(scene.members, writeSettings(scene.memory, scene.bytes, settings, scene.members.length));
  const settingsOf = (ev100: number | null): RenderSettings => ({ ...setup.settings, camera: recentreCamera(setup.settings.camera, setup.centre_m as Vec3), firefly: setup.firefly === null || ev100 === null ? 0 : setup.firefly * whiteLuminance(ev100) });
  const send = (picture: Omit<PreviewPicture, 'kind' | 'job' | 'seconds'>) => scope.postMessage({ kind: 'picture', job: job.id, seconds: seconds(), ...picture }, [picture.rgba]);

  // the quick look
  const [width, height] = [Math.ceil(job.width / 2), Math.ceil(job.height / 2)];
  const quick = new MemoryFilm();
  const first = await renderFilm(poolFor({ ...settingsOf(setup.ev100 ?? lastEv), width, height, bounces: Math.min(setup.settings.bounces, LOOK_BOUNCES) }), quick, tilesOf(width, height), { samples: 1, grain: null, seconds: null, white: 1, unit: 1 }, { shouldStop: () => paused || otherFrame() });
  if (first.by === 'limits') {
    const ev100 = setup.ev100 ?? (await meterFilm(quick, width, height, meterBlock(width, height))) + setup.meter_ev;
    const { rgba, filter } = await developPicture({ film: quick, width, height, white: whiteLuminance(ev100) }, job.brief.finish, 'guided');
    send({ width, height, rgba, samples: 0, grain: null, ev100, filter, ended: false, film: null });
    lastEv = ev100;
    lastLook = performance.now();
  }
  if (!(await goesOn())) return;

  // the very pack of this brief
  if (!setup.exact) {
    setup = await ask(job, true);
    if (!(await goesOn())) return;
    scene = await load(setup);
  }
  const meterKey = canonicalJson({ ...setup, settings: { ...setup.settings, light: null } });
  let ev100 = setup.ev100 ?? metered.get(meterKey) ?? null;
  while (ev100 === null) {
    const small = meterSettings(settingsOf(null));
    const reading = await measureExposure(poolFor(small), small, halt);
    if (reading !== null) {
      ev100 = reading + setup.meter_ev;
      metered.set(meterKey, ev100);
    } else if (!(await goesOn())) return;
  }
  lastEv = ev100;

  // the film
  const white = whiteLuminance(ev100);
  const tiles = tilesOf(job.width, job.height);
  const film = new MemoryFilm();
  const settings = settingsOf(ev100);
  let pool = poolFor(settings);
  const picture = { film, width: job.width, height: job.height, white };
  for (const stage of passEnds(setup.samples)) {
    const reached = (tile: TileRect) => {
      const state = film.state(tile.index);
      return state !== null && (state.done || state.samples >= stage);
    };
    let open = tiles.filter((tile) => !reached(tile)).length;
    let nextLook = performance.now() + LOOK_MS;
    while (open > 0) {
      const end = await renderFilm(pool, film, tiles, { samples: setup.samples, grain: setup.grain, seconds: null, white, unit: UNIT_SAMPLES }, {
        onTile: (tile) => {
          if (reached(tile)) open--;
        },
        // a look now and then within a long stage
        shouldStop: () => halt() || open === 0 || (stage > 1 && performance.now() > nextLook)
      });
      if (!(await goesOn())) return;
      if (threads !== scene.members.length) {
        scene = withThreads(scene);
        pool = poolFor(settings);
      }
      const ended = end.by === 'limits';
      if (ended) open = 0;
      if (open > 0 && performance.now() < nextLook) continue;
      const started = performance.now();
      const { rgba, filter } = await developPicture(picture, job.brief.finish, open === 0 && (ended || stage >= LEARNED_FROM) ? 'learned' : 'guided');
      send({ width: job.width, height: job.height, rgba, samples: end.samples, grain: end.grain, ev100, filter, ended, film: ended ? await hashOf(film, job, tiles) : null });
      nextLook = performance.now() + Math.max(LOOK_MS, (performance.now() - started) / LOOK_SHARE);
      if (ended) return;
    }
  }
}

// Fewer samples give the learned filter too little to go by for the time that it takes.
const LEARNED_FROM = 16;

async function hashOf(film: MemoryFilm, job: PreviewJob, tiles: readonly TileRect[]): Promise<string> {
  const parts: Uint8Array[] = [];
  for await (const part of filmBytes(film, job.width, job.height, tiles)) parts.push(part.slice());
  const digest = await crypto.subtle.digest('SHA-256', await new Blob(parts as BlobPart[]).arrayBuffer());
  return [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('');
}

async function ask({ project, brief, width, height }: PreviewJob, exact: boolean): Promise<RenderSetup> {
  const answer = await fetch(`/api/projects/${project}/preview`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ brief, width, height, exact, pack: loaded?.key ?? null, light: light?.key ?? null }) });
  if (!answer.ok) throw new Error(((await answer.json().catch(() => null)) as { message?: string } | null)?.message ?? `the server answered ${answer.status}`);
  const setup = decodeSetup(new Uint8Array(await answer.arrayBuffer()), (key) => (light?.key === key ? light.light : null));
  light = { key: setup.lightKey, light: setup.settings.light };
  return setup;
}

/** Has the setup's pack in memory, with room for its surroundings. */
async function load(setup: RenderSetup): Promise<Loaded> {
  const needed = memoryFor(setup.packBytes, setup.settings.light, MOST_THREADS);
  if (loaded?.key === setup.pack && loaded.memory.buffer.byteLength >= needed) {
    if (loaded.members.length !== threads) loaded = withThreads(loaded);
    return loaded;
  }
  module ??= WebAssembly.compileStreaming(fetch('/api/kernel'));
  const compiled = await module;
  if (loaded && loaded.key !== setup.pack) drop();
  const before = loaded;
  const memory = createMemory(Math.max(needed, memoryFor(setup.packBytes, { even: null, image: null, sun: null }, MOST_THREADS) + SURROUNDINGS_ROOM));
  const target = new Uint8Array(memory.buffer, PACK_AT, setup.packBytes);
  if (before) target.set(new Uint8Array(before.memory.buffer, PACK_AT, before.bytes));
  else await fetchInto(`/api/packs/${setup.pack}`, target);
  drop();
  loaded = { key: setup.pack, bytes: setup.packBytes, memory, members: Array.from({ length: threads }, (_, thread) => new WebThread({ module: compiled, memory, thread })) };
  compiledModule = compiled;
  return loaded;
}

// Buffers of threads that may be asked for later; 256 kB each.
const MOST_THREADS = 64;
let compiledModule: WebAssembly.Module | null = null;

function withThreads(scene: Loaded): Loaded {
  for (const member of scene.members.splice(threads)) void member.end();
  while (scene.members.length < threads) scene.members.push(new WebThread({ module: compiledModule!, memory: scene.memory, thread: scene.members.length }));
  return scene;
}

function drop(): void {
  for (const member of loaded?.members ?? []) void member.end();
  loaded = null;
}

async function fetchInto(url: string, target: Uint8Array): Promise<void> {
  const answer = await fetch(url);
  if (!answer.ok || !answer.body) throw new Error(`the scene could not be fetched (${answer.status})`);
  const reader = answer.body.getReader();
  let at = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    if (at + value.length > target.length) throw new Error('the scene is longer than was said; reload the page');
    target.set(value, at);
    at += value.length;
  }
  if (at !== target.length) throw new Error('the scene came only in part; it is tried again at the next change');
}
