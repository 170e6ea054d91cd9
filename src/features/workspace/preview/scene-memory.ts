/** What the director holds of a scene: its pack in shared memory, its light, the threads over both; and how they are got from the server. */
import type { SurroundingsLight } from '../../../core/lights/surroundings-light';
import { createMemory, PACK_AT } from '../../../kernel/host/kernel';
import { RenderPool } from '../../../kernel/host/pool';
import { memoryFor, type RenderSettings, writeSettings } from '../../../kernel/host/settings';
import { decodeSetup, type RenderSetup } from '../../../kernel/host/setup';
import type { PreviewJob } from './messages';
import { WebThread } from './web-threads';

// Buffers of threads that may be asked for later; 256 kB each.
const MOST_THREADS = 32;
// What the surroundings may grow to without a new memory: the largest sky and then some.
const SURROUNDINGS_ROOM = 4 * 2 ** 20;

interface Loaded {
  key: string;
  bytes: number;
  memory: WebAssembly.Memory;
  module: WebAssembly.Module;
  members: WebThread[];
}

export class SceneMemory {
  private loaded: Loaded | null = null;
  private light: { key: string; light: SurroundingsLight } | null = null;
  private module: Promise<WebAssembly.Module> | null = null;

  constructor(private readonly threads: () => number) {}

  /** What the brief needs. Not `exact`, a pack with another origin serves, when it is here and the right one is not made yet. */
  async ask({ project, brief, width, height }: PreviewJob, exact: boolean): Promise<RenderSetup> {
    const answer = await fetch(`/api/projects/${project}/preview`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ brief, width, height, exact, pack: this.loaded?.key ?? null, light: this.light?.key ?? null }) });
    if (!answer.ok) throw new Error(((await answer.json().catch(() => null)) as { message?: string } | null)?.message ?? `the server answered ${answer.status}`);
    const setup = decodeSetup(new Uint8Array(await answer.arrayBuffer()), (key) => (this.light?.key === key ? this.light.light : null));
    this.light = { key: setup.lightKey, light: setup.settings.light };
    return setup;
  }

  /** Has the setup's pack here, with room for its surroundings. */
  async load(setup: RenderSetup): Promise<void> {
    const needed = memoryFor(setup.packBytes, setup.settings.light, MOST_THREADS);
    const { loaded } = this;
    if (loaded?.key === setup.pack && loaded.memory.buffer.byteLength >= needed) return;
    this.module ??= WebAssembly.compileStreaming(fetch('/api/kernel'));
    const module = await this.module;
    const same = loaded?.key === setup.pack ? loaded : null;
    // two scenes at once would be twice the memory
    if (!same) this.drop();
    const memory = createMemory(Math.max(needed, memoryFor(setup.packBytes, { even: null, image: null, sun: null }, MOST_THREADS) + SURROUNDINGS_ROOM));
    const target = new Uint8Array(memory.buffer, PACK_AT, setup.packBytes);
    if (same) target.set(new Uint8Array(same.memory.buffer, PACK_AT, same.bytes));
    else await fetchInto(`/api/packs/${setup.pack}`, target);
    this.drop();
    this.loaded = { key: setup.pack, bytes: setup.packBytes, memory, module, members: [] };
  }

  /** Threads laid out for these settings; none of an earlier pool may be at work. */
  pool(settings: RenderSettings): RenderPool {
    const { members, memory, module, bytes } = this.loaded!;
    for (const member of members.splice(this.threads())) void member.end();
    while (members.length < this.threads()) members.push(new WebThread({ module, memory, thread: members.length }));
    return new RenderPool(members, writeSettings(memory, bytes, settings, members.length));
  }

  drop(): void {
    for (const member of this.loaded?.members ?? []) void member.end();
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
