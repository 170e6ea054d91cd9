/** The ICC profiles of presses: brought in, and what each makes of colours. */
import { createReadStream } from 'node:fs';
import { mkdir, rename, stat } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { PressProfileDto } from '../../contracts/dto';
import { type Result, ok, refused } from '../../core/result/result';
import { contentPath, discard, has, isContentHash, put } from '../files/content-store';
import { pressPath } from '../files/previews';
import { runTask } from '../jobs/run-task';
import { findPressProfile, insertPressProfile } from '../store/press-profiles';
import { attendJob } from './attend-job';
import { newId } from './identify';

// Those of offset presses have up to a few MB.
const MAX_BYTES = 32 * 2 ** 20;

export async function addPressProfile(upload: string, fileName: string): Promise<Result<PressProfileDto>> {
  if (!(await has('incoming', upload)))
    return refused(`"${fileName}" was not uploaded completely. Choose it again`, 'missing_upload');
  const path = contentPath('incoming', upload);
  if ((await stat(path)).size > MAX_BYTES)
    return refused(`"${fileName}" is too large for an ICC profile; at most ${MAX_BYTES / 2 ** 20} MB are read`);
  const out = await preparedPath(`new-${newId()}`);
  const read = await attendJob('import', null, () => runTask('press', { path, out }));
  if (!read.ok) return refused(`"${fileName}": ${read.message}`, read.code);
  const { sha256 } = await put('profiles', createReadStream(path));
  await rename(out, pressPath(sha256));
  await discard('incoming', upload);
  const name = (read.value.name || fileName.replace(/\.[A-Za-z0-9]+$/, '')).slice(0, 80);
  insertPressProfile({ sha256, name, created_at_ms: Date.now() });
  return ok({ sha256, name });
}

/** The file with what a profile makes of colours. */
export async function pressColoursFile(sha256: string): Promise<Result<string>> {
  if (!isContentHash(sha256) || !findPressProfile(sha256))
    return refused('this profile is no longer there; bring it in again', 'gone');
  const out = await preparedPath(sha256);
  if (
    await stat(out).then(
      () => true,
      () => false
    )
  )
    return ok(out);
  const read = await attendJob('import', null, () => runTask('press', { path: contentPath('profiles', sha256), out }));
  return read.ok ? ok(out) : read;
}

async function preparedPath(name: string): Promise<string> {
  const path = pressPath(name);
  await mkdir(dirname(path), { recursive: true });
  return path;
}
