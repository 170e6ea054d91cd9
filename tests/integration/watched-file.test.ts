/** A project that follows a file of the watched folder, by the process that the application runs for it. */
import { spawn } from 'node:child_process';
import { mkdir, mkdtemp, symlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it, vi } from 'vitest';

const data = await mkdtemp(join(tmpdir(), 'sphaera-watched-'));
const folder = await mkdtemp(join(tmpdir(), 'sphaera-folder-'));
// the use cases read them when they are loaded
vi.stubEnv('SPHAERA_DATA', data);
vi.stubEnv('SPHAERA_WATCH', folder);
const { put } = await import('../../src/server/files/content-store');
const { createProject } = await import('../../src/server/usecases/create-project');
const { pathOfWatched, viewWatch, watchFile } = await import('../../src/server/usecases/watched-file');
const { viewWorkspace } = await import('../../src/server/usecases/view-workspace');
const { closeDatabase } = await import('../../src/server/store/database');

/** A card of a width, m. */
const card = (width: number) =>
  `solid card\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex ${width} 0 0\nvertex ${width} 2 0\nendloop\nendfacet\nendsolid card\n`;

await mkdir(join(folder, 'hut', '.old'), { recursive: true });
// of another shape than the project's, so that bringing it in would be seen
await writeFile(join(folder, 'hut', 'card.stl'), card(1.2));
await writeFile(join(folder, 'hut', 'notes.txt'), 'nothing');
await writeFile(join(folder, 'hut', '.old', 'card.stl'), card(1));
await symlink('/etc/hostname', join(folder, 'outside.stl'));

const service = spawn(process.execPath, ['build/watch-service.mjs'], {
  env: { ...process.env, SPHAERA_STARTER: String(process.pid) },
  stdio: 'inherit'
});
afterAll(() => {
  service.kill('SIGTERM');
  closeDatabase();
});

describe('the watched folder', () => {
  it('brings each save of a followed file in, says when one cannot be read, and ends when it is told to', async () => {
    const upload = (await put('incoming', new TextEncoder().encode(card(1)))).sha256;
    const made = await createProject({ files: [{ upload, name: 'card.stl' }], unit: 'm', up: 'y' });
    if (!made.ok) throw new Error(made.message);
    const { project } = made.value;
    const now = () => viewWorkspace(project)!.revision;
    expect(await viewWatch(project)).toEqual({
      ok: true,
      value: { files: ['hut/card.stl'], file: null, note: null }
    });

    expect(await watchFile(project, '../../etc/passwd')).toMatchObject({ ok: false, code: 'gone' });
    expect(await watchFile(project, 'hut/gone.stl')).toMatchObject({ ok: false, code: 'gone' });
    // a link that leads out of the folder
    expect(await pathOfWatched('outside.stl')).toBe(null);
    expect(await watchFile(project, 'hut/card.stl')).toMatchObject({ ok: true, value: { file: 'hut/card.stl' } });

    // what was there before the project is not brought in again
    await new Promise((resolve) => setTimeout(resolve, 3000));
    expect(now().number).toBe(1);
    await writeFile(join(folder, 'hut', 'card.stl'), card(1.5));
    await vi.waitFor(() => expect(now().report.size_m[0]).toBeCloseTo(1.5), { timeout: 30_000, interval: 200 });
    expect(now().number).toBe(2);

    await writeFile(join(folder, 'hut', 'card.stl'), 'nothing');
    const note = async () => {
      const state = await viewWatch(project);
      return state.ok ? (state.value?.note ?? null) : null;
    };
    await vi.waitFor(async () => expect(await note()).toMatch(/STL is cut off/), { timeout: 30_000, interval: 200 });
    expect(now().number).toBe(2);

    expect(await watchFile(project, null)).toMatchObject({ value: { file: null, note: null } });
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await writeFile(join(folder, 'hut', 'card.stl'), card(3));
    await new Promise((resolve) => setTimeout(resolve, 4000));
    expect(now().number).toBe(2);
  }, 120_000);
});
