/** A photometric file, LM-63 or EULUMDAT, into the library: read once to be sure that it can be used. */
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type { PhotometricDto } from '../../contracts/dto';
import { contentPath, discard, has, put } from '../files/content-store';
import { runTask } from '../jobs/run-task';
import { insertPhotometric } from '../store/photometric';
import { type Result, ok, refused } from '../../core/result/result';
import { attendJob } from './attend-job';

// The largest that makers publish are a few hundred kB.
const MAX_BYTES = 8 * 2 ** 20;

export async function addPhotometric(
  upload: string,
  fileName: string,
  signal?: AbortSignal
): Promise<Result<PhotometricDto>> {
  if (!(await has('incoming', upload)))
    return refused(`"${fileName}" was not uploaded completely. Choose it again`, 'missing_upload');
  const path = contentPath('incoming', upload);
  const { size } = await stat(path);
  if (size > MAX_BYTES)
    return refused(
      `"${fileName}" has ${Math.round(size / 2 ** 20)} MB; photometric files are text of at most ${MAX_BYTES / 2 ** 20} MB`
    );
  const read = await attendJob('import', null, () => runTask('photometric', { path }, { signal }));
  if (!read.ok) return refused(`"${fileName}", ${read.message}`, read.code);
  const { name, watts, lumen, curve } = read.value;
  if (!(lumen > 0)) return refused(`"${fileName}" says that its lamp gives no light: every intensity in it is 0`);
  const { sha256 } = await put('photometric', createReadStream(path));
  await discard('incoming', upload);
  const shown = (name || fileName.replace(/\.[A-Za-z0-9]+$/, '')).slice(0, 80);
  insertPhotometric({
    sha256,
    name: shown,
    lumen,
    watts,
    curve_json: JSON.stringify(curve),
    created_at_ms: Date.now()
  });
  return ok({ sha256, name: shown, lumen, watts, curve });
}
