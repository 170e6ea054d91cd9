/** A picture of one's own into the library: read once, and kept upright and in sRGB. */
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { BackdropDto } from '../../contracts/dto';
import { config } from '../config';
import { contentPath, discard, has, isContentHash, put } from '../files/content-store';
import { runTask } from '../jobs/run-task';
import { insertBackdrop } from '../store/backdrops';
import { type Result, ok, refused } from '../../core/result/result';
import { attendJob } from './attend-job';
import { newId } from './identify';

export async function addBackdrop(
  upload: string,
  fileName: string,
  purpose: 'behind' | 'surface',
  signal?: AbortSignal
): Promise<Result<BackdropDto>> {
  if (!(await has('incoming', upload)))
    return refused(`"${fileName}" was not uploaded completely. Choose it again`, 'missing_upload');
  const out = join(config.dataDir, 'incoming', `.${newId()}.part`);
  try {
    const input = { path: contentPath('incoming', upload), out, purpose };
    const read = await attendJob('import', null, () => runTask('backdrop', input, { signal }));
    if (!read.ok) return refused(`"${fileName}" ${read.message}`, read.code);
    const { sha256 } = await put('backdrops', createReadStream(out));
    await discard('incoming', upload);
    const added: BackdropDto = {
      sha256,
      name: fileName.replace(/\.[A-Za-z0-9]+$/, '').slice(0, 80),
      width_px: read.value.width,
      height_px: read.value.height,
      purpose
    };
    insertBackdrop({ ...added, created_at_ms: Date.now() });
    return ok(added);
  } finally {
    await rm(out, { force: true });
  }
}

/** Null when it is no hash. */
export const backdropFile = (sha256: string): string | null =>
  isContentHash(sha256) ? contentPath('backdrops', sha256) : null;
