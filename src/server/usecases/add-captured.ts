/** A captured 360 degree image into the library: read once, by a process of its own, to be sure that it can be used; reduced when it is enormous and that is wanted. */
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { CapturedDto, CapturedSunDto } from '../../contracts/dto';
import { config } from '../config';
import { contentPath, has, put } from '../files/content-store';
import { insertCaptured } from '../store/projects';
import { done, type Outcome, refused } from './identify';

export interface CapturedJob {
  path: string;
  name: string;
  reduce: boolean;
  /** Path without extension. */
  out: string;
}
export type CapturedSaid = { ok: true; width: number; height: number; reduced: boolean; sun: CapturedSunDto | null } | { ok: false; code: string; message: string };

export async function addCaptured(upload: string, name: string, reduce: boolean): Promise<Outcome<Omit<CapturedDto, 'name'>>> {
  if (!(await has('incoming', upload))) return refused(`"${name}" did not arrive whole; bring it in again`, 'missing_upload');
  const path = contentPath('incoming', upload);
  const folder = join(config.dataDir, 'captured');
  await mkdir(folder, { recursive: true });
  const out = join(folder, `.${randomUUID()}.part`);
  try {
    const code = await new Promise<number | null>((resolve) => {
      const child = spawn(process.execPath, [config.built('captured-worker.mjs'), JSON.stringify({ path, name, reduce, out } satisfies CapturedJob)], { cwd: config.root, stdio: ['ignore', 'ignore', 'inherit'], env: config.childEnvironment });
      child.on('exit', resolve);
      child.on('error', () => resolve(null));
    });
    if (code !== 0) return refused(`"${name}" cannot be read; it may need more memory than there is. Bring in a smaller one`);
    const said = JSON.parse(await readFile(`${out}.json`, 'utf8')) as CapturedSaid;
    if (!said.ok) return refused(said.message, said.code);
    const { sha256 } = await put('captured', createReadStream(said.reduced ? `${out}.exr` : path));
    insertCaptured({ sha256, name: name.replace(/\.[A-Za-z0-9]+$/, '').slice(0, 80), width_px: said.width, height_px: said.height, created_at_ms: Date.now(), sun_json: JSON.stringify(said.sun) });
    return done({ sha256, width_px: said.width, height_px: said.height, sun: said.sun });
  } finally {
    for (const extension of ['json', 'exr']) await rm(`${out}.${extension}`, { force: true });
  }
}
