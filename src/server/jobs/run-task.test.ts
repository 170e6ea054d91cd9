import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { beforeAll, describe, expect, it, vi } from 'vitest';

// a task of our own in place of a built one, so that every way to end is met
const root = mkdtempSync(join(tmpdir(), 'sphaera-tasks-'));
mkdirSync(join(root, 'build'));
const TASK = `
import { Refusal, serveTask } from ${JSON.stringify(resolve('build/test/serve-task.mjs'))};
serveTask('weigh', async ({ model }, { progress, stopRequest, untilResumed }) => {
  if (model === 'refuse') throw new Refusal('bad', 'no such thing');
  if (model === 'fault') throw new Error('a pointer went astray');
  if (model === 'exit') process.exit(3);
  if (model === 'spin') for (;;) {}
  if (model === 'grow') { const all = []; for (;;) { all.push(new Uint8Array(5e7).fill(1)); await new Promise((r) => setTimeout(r, 5)); } }
  if (model === 'stop') { progress('begun'); while (!stopRequest()) await new Promise((r) => setTimeout(r, 5)); return stopRequest(); }
  if (model === 'pause') { await untilResumed(); return 'went on'; }
  progress('half way');
  return model;
});
`;

vi.stubEnv('SPHAERA_ROOT', root);
const { openTask, runTask } = await import('./run-task');
const weigh = (model: string, options: object = {}) =>
  runTask('weigh', { model }, { maxMemoryMb: 4096, ...options }) as Promise<{
    ok: boolean;
    value?: unknown;
    code?: string;
  }>;

beforeAll(async () => {
  const { build } = await import('esbuild');
  await build({
    stdin: {
      contents:
        "export { serveTask } from './src/server/jobs/serve-task'; export { Refusal } from './src/core/result/result';",
      resolveDir: resolve('.'),
      loader: 'ts'
    },
    outfile: 'build/test/serve-task.mjs',
    bundle: true,
    platform: 'node',
    format: 'esm',
    logLevel: 'silent'
  });
  writeFileSync(join(root, 'build/task-weigh.mjs'), TASK);
});

describe('a task in a process of its own', () => {
  it('answers with its result, and tells how far it is on the way', async () => {
    const seen: unknown[] = [];
    expect(await weigh('box', { onProgress: (p: unknown) => seen.push(p) })).toEqual({ ok: true, value: 'box' });
    expect(seen).toEqual(['half way']);
  });

  it('answers several requests at once when it is kept open', async () => {
    const task = openTask('weigh');
    const answers = await Promise.all(['a', 'b', 'c'].map((model) => task.ask({ model })));
    expect(answers.map((a) => a.ok && a.value)).toEqual(['a', 'b', 'c']);
    await task.close();
    expect(task.ended).toBe(true);
    expect(await task.ask({ model: 'late' })).toMatchObject({ ok: false, code: 'crashed' });
  });

  it.each([
    ['refuse', {}, 'bad', /^no such thing$/],
    ['fault', {}, 'fault', /something went wrong on our side in weighing the model/],
    ['exit', {}, 'crashed', /ended unexpectedly/],
    ['spin', { maxSeconds: 1 }, 'timeout', /took longer than 1 s/],
    ['grow', { maxMemoryMb: 700 }, 'memory', /more than 1 GB of memory/]
  ])('that ends by %s says so', async (model, options, code, message) => {
    const end = (await weigh(model, options)) as { message?: string; code?: string };
    expect(end.code).toBe(code);
    expect(end.message).toMatch(message);
  });

  it('is ended by a signal, before it begins and while it runs', async () => {
    const stop = new AbortController();
    const running = weigh('spin', { signal: stop.signal });
    stop.abort();
    expect(await running).toMatchObject({ ok: false, code: 'stopped' });
    expect(await weigh('box', { signal: stop.signal })).toMatchObject({ ok: false, code: 'stopped' });
  });

  it('can be told to end by itself, and to pause', async () => {
    const task = openTask('weigh');
    const stopped = task.ask({ model: 'stop' }, () => task.stop('keep'));
    expect(await stopped).toEqual({ ok: true, value: 'keep' });
    task.pause(true);
    let done = false;
    const paused = task.ask({ model: 'pause' }).then((answer) => {
      done = true;
      return answer;
    });
    // a later request is answered while the paused one waits
    await task.ask({ model: 'box' });
    expect(done).toBe(false);
    task.pause(false);
    expect(await paused).toMatchObject({ ok: true, value: 'went on' });
    await task.close();
  });
});
