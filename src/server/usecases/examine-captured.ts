/**
 * A captured image read by a task: whether it can be used, its sun, its strip, and the image itself when it had to be
 * reduced.
 */
import { randomUUID } from 'node:crypto';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Result } from '../../core/result/result';
import { config } from '../config';
import { runTask } from '../jobs/run-task';
import type { TaskResult } from '../jobs/tasks';
import { attendJob } from './attend-job';

/**
 * What `use` makes of it. `out` is a path without extension, beside which lie `.png`, the strip, and `.exr`, the image,
 * when it was reduced; they are gone afterwards, but for those that were moved away.
 */
export async function examineCaptured<T>(
  path: string,
  name: string,
  reduce: boolean,
  signal: AbortSignal | undefined,
  use: (found: Result<TaskResult<'captured'>>, out: string) => Promise<T>
): Promise<T> {
  const folder = join(config.dataDir, 'captured');
  await mkdir(folder, { recursive: true });
  const out = join(folder, `.${randomUUID()}.part`);
  try {
    const found = await attendJob('import', null, () => runTask('captured', { path, name, reduce, out }, { signal }));
    return await use(found, out);
  } finally {
    for (const extension of ['png', 'exr']) await rm(`${out}.${extension}`, { force: true });
  }
}
