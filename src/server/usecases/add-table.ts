/** A colour table of another program: read once to be sure that it can be used, and kept by its hash. */
import { readFile, stat } from 'node:fs/promises';
import { parseCube } from '../../core/color/table';
import { type Result, ok, refused } from '../../core/result/result';
import { contentPath, discard, has, isContentHash, put } from '../files/content-store';

// A table of 128 entries along each axis.
const MAX_BYTES = 80 * 2 ** 20;

export async function addTable(upload: string, fileName: string): Promise<Result<{ file: string; name: string }>> {
  if (!(await has('incoming', upload)))
    return refused(`"${fileName}" was not uploaded completely. Choose it again`, 'missing_upload');
  const path = contentPath('incoming', upload);
  if ((await stat(path)).size > MAX_BYTES)
    return refused(`"${fileName}" is too large for a colour table; those of 128 entries a side have 70 MB`);
  const text = await readFile(path, 'latin1');
  try {
    const { title } = parseCube(text);
    const { sha256 } = await put('tables', Buffer.from(text, 'latin1'));
    await discard('incoming', upload);
    return ok({ file: sha256, name: (title || fileName.replace(/\.[A-Za-z0-9]+$/, '')).slice(0, 120) });
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return refused(`"${fileName}" cannot be used as a colour table: ${error.message}`);
  }
}

/** Null when it is no hash. */
export const tableFile = (sha256: string): string | null =>
  isContentHash(sha256) ? contentPath('tables', sha256) : null;
