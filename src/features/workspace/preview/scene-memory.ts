/**
 * What the director holds of a scene: its pack in shared memory, its light, the threads over both; and how they are got
 * from the server.
 */
import { canonicalJson, filmBrief } from '../../../core/brief/brief';
import type { Filter } from '../../../core/finishing/denoise/filter';
import type { SurroundingsLight } from '../../../core/lights/surroundings-light';
import { guidedFilter } from '../../../kernel/host/guided-filter';
import { behindScene, createMemory, PACK_AT, placeRig } from '../../../kernel/host/kernel';
import { RenderPool } from '../../../kernel/host/pool';
import { memoryFor, type RenderSettings, writeSettings } from '../../../kernel/host/settings';
import { decodeSetup, type RenderSetup } from '../../../kernel/host/setup';
import { Cancelled } from './learned-filter';
import { MAX_THREADS, type PreviewJob } from './messages';
import { nextTask } from './next-task';
import { WebThread } from './web-threads';

// What rig and surroundings may grow to without a new memory: a studio, the largest sky and then some.
const ROOM = 8 * 2 ** 20;

interface Loaded {
  key: string;
  bytes: number;
  /** Key of the rig that lies behind the pack, and where that ends. */
  rig: string | null;
  end: number;
  memory: WebAssembly.Memory;
  module: WebAssembly.Module;
}

export class SceneMemory {
  private loaded: Loaded | null = null;
  /** Threads, the first of which work over the scene that is loaded. */
  private readonly members: WebThread[] = [];
  private rig: { key: string; bytes: Uint8Array } | null = null;
  private light: { key: string; light: SurroundingsLight } | null = null;
  /** The last answer, and of what. */
  private answered: { key: string; setup: RenderSetup } | null = null;
  private module: Promise<WebAssembly.Module> | null = null;
  private guided: Filter | null = null;
  private haltFilter = () => false;

  constructor(private readonly threads: () => number) {}

  /**
   * What the brief needs. Not `exact`, a pack with another origin serves, when it is here and the right one is not made
   * yet.
   */
  async ask({ project, brief, width, height }: PreviewJob, exact: boolean): Promise<RenderSetup> {
    const key = canonicalJson({ project, brief: filmBrief(brief), width, height });
    // what was asked to get ready is mostly what is wanted then
    if (this.answered?.key === key && this.answered.setup.exact) {
      void fetch('/api/preview', { method: 'POST' }).catch(() => {});
      return this.answered.setup;
    }
    const answer = await fetch(`/api/projects/${project}/preview`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({
        brief,
        width,
        height,
        exact,
        pack: this.loaded?.key ?? null,
        rig: this.rig?.key ?? null,
        light: this.light?.key ?? null
      })
    });
    if (!answer.ok)
      throw new Error(
        ((await answer.json().catch(() => null)) as { message?: string } | null)?.message ??
          `the server answered ${answer.status}`
      );
    const setup = decodeSetup(new Uint8Array(await answer.arrayBuffer()), (key) =>
      this.light?.key === key ? this.light.light : null
    );
    this.light = { key: setup.lightKey, light: setup.settings.light };
    if (setup.rig) this.rig = { key: setup.rigKey, bytes: setup.rig };
    this.answered = { key, setup: { ...setup, rig: null } };
    return this.answered.setup;
  }

  /** Has the setup's pack and rig here, with room for its surroundings. No thread may be at work. */
  async load(setup: RenderSetup): Promise<void> {
    await this.loadPack(setup);
    const loaded = this.loaded!;
    if (loaded.rig === setup.rigKey) return;
    if (this.rig?.key !== setup.rigKey)
      throw new Error('what lights the scene has not come; it is tried again at the next change');
    placeRig(loaded.memory, setup.packBytes, this.rig.bytes);
    loaded.rig = setup.rigKey;
    loaded.end = behindScene(setup.packBytes, setup.rigBytes);
  }

  private async loadPack(setup: RenderSetup): Promise<void> {
    const end = behindScene(setup.packBytes, setup.rigBytes);
    const needed = memoryFor(end, setup.settings.light, MAX_THREADS);
    const { loaded } = this;
    if (loaded?.key === setup.pack && loaded.memory.buffer.byteLength >= needed) return;
    this.module ??= WebAssembly.compileStreaming(fetch('/api/kernel'));
    const module = await this.module;
    const same = loaded?.key === setup.pack ? loaded : null;
    // two scenes at once would be twice the memory
    if (!same) {
      this.loaded = null;
      for (const member of this.members) member.rest();
    }
    const memory = createMemory(
      Math.max(
        needed,
        memoryFor(behindScene(setup.packBytes, 0), { even: null, image: null, sun: null }, MAX_THREADS) + ROOM
      )
    );
    const target = new Uint8Array(memory.buffer, PACK_AT, setup.packBytes);
    if (same) target.set(new Uint8Array(same.memory.buffer, PACK_AT, same.bytes));
    else await fetchInto(`/api/packs/${setup.pack}`, target);
    this.loaded = { key: setup.pack, bytes: setup.packBytes, rig: null, end, memory, module };
    for (const [thread, member] of this.members.entries()) member.begin({ module, memory, thread });
    this.assemble();
  }

  /** Our own filter, once a scene is loaded; a run of it throws Cancelled soon after `halt` says so. */
  filter(halt: () => boolean): Filter {
    this.haltFilter = halt;
    this.guided ??= guidedFilter(this.loaded!.module, async () => {
      await nextTask();
      if (this.haltFilter()) throw new Cancelled();
    });
    return this.guided;
  }

  /** As many threads as are asked for. */
  private assemble(): void {
    const { memory, module } = this.loaded!;
    for (const member of this.members.splice(this.threads())) void member.end();
    while (this.members.length < this.threads()) {
      const member = new WebThread();
      member.begin({ module, memory, thread: this.members.length });
      this.members.push(member);
    }
  }

  /** Threads laid out for these settings; none of an earlier pool may be at work. */
  pool(settings: RenderSettings): RenderPool {
    const { memory, end } = this.loaded!;
    this.assemble();
    return new RenderPool([...this.members], writeSettings(memory, end, settings, this.members.length));
  }

  drop(): void {
    this.answered = null;
    for (const member of this.members.splice(0)) void member.end();
    this.loaded = null;
  }
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
