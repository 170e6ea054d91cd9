/** A data folder of the test's own with one project, made as the application makes it. */
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { vi } from 'vitest';
import { boxGlb } from './glb';

/** Call it before anything of the server is imported: the server reads its folder when it is loaded. */
export async function boxProject(): Promise<{ project: string; picture: string }> {
  vi.stubEnv('SPHAERA_DATA', await mkdtemp(join(tmpdir(), 'sphaera-test-')));
  const { put } = await import('../../src/server/files/content-store');
  const { createProject } = await import('../../src/server/usecases/create-project');
  const { sha256 } = await put('incoming', await boxGlb({ size: 0.4 }));
  const made = await createProject({ files: [{ upload: sha256, name: 'my_box.glb' }], unit: 'm', up: 'y' });
  if (!made.ok) throw new Error(made.message);
  return { project: made.value.project, picture: made.value.pictures[0]! };
}
