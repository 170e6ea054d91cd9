/**
 * A captured image read by a process of its own: whether it can be used, its sun, its strip, and the image itself when
 * it had to be reduced.
 */
import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { CapturedSunDto } from '../../contracts/dto';
import { config } from '../config';
import { runWorker } from './run-worker';

export interface CapturedJob {
  path: string;
  name: string;
  reduce: boolean;
  /** Path without extension: `.json` has what is said, `.png` the strip, `.exr` the image when it was reduced. */
  out: string;
}
export type CapturedSaid =
  | { ok: true; width: number; height: number; reduced: boolean; sun: CapturedSunDto | null }
  | { ok: false; code: string; message: string };

/** What `use` makes of it; the files beside `out` are gone afterwards, but for those it moved away. */
export async function examineCaptured<T>(
  path: string,
  name: string,
  reduce: boolean,
  use: (said: CapturedSaid, out: string) => Promise<T>
): Promise<T> {
  const folder = join(config.dataDir, 'captured');
  await mkdir(folder, { recursive: true });
  const out = join(folder, `.${randomUUID()}.part`);
  try {
    const code = await runWorker('captured-worker', [
      JSON.stringify({ path, name, reduce, out } satisfies CapturedJob)
    ]);
    if (code !== 0)
      return await use(
        {
          ok: false,
          code: 'refused',
          message: `"${name}" cannot be read; it may need more memory than there is. Bring in a smaller one`
        },
        out
      );
    return await use(JSON.parse(await readFile(`${out}.json`, 'utf8')) as CapturedSaid, out);
  } finally {
    for (const extension of ['json', 'png', 'exr']) await rm(`${out}.${extension}`, { force: true });
  }
}
