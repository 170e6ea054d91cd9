/**
 * A captured 360 degree image into the library: read once to be sure that it can be used; reduced when it is enormous
 * and that is wanted.
 */
import { createReadStream } from 'node:fs';
import type { CapturedDto } from '../../contracts/dto';
import { contentPath, discard, has, put } from '../files/content-store';
import { insertCaptured } from '../store/projects';
import { keepStrip } from './captured-strip';
import { examineCaptured } from './examine-captured';
import { type Result, ok, refused } from '../../core/result/result';

export async function addCaptured(
  upload: string,
  name: string,
  reduce: boolean,
  signal?: AbortSignal
): Promise<Result<Omit<CapturedDto, 'name'>>> {
  if (!(await has('incoming', upload)))
    return refused(`"${name}" was not uploaded completely. Choose it again`, 'missing_upload');
  const path = contentPath('incoming', upload);
  return examineCaptured(path, name, reduce, signal, async (found, out) => {
    if (!found.ok) return found;
    const { reduced, width, height, sun } = found.value;
    const { sha256 } = await put('captured', createReadStream(reduced ? `${out}.exr` : path));
    await keepStrip(out, sha256);
    await discard('incoming', upload);
    insertCaptured({
      sha256,
      name: name.replace(/\.[A-Za-z0-9]+$/, '').slice(0, 80),
      width_px: width,
      height_px: height,
      created_at_ms: Date.now(),
      sun_json: JSON.stringify(sun)
    });
    return ok({ sha256, width_px: width, height_px: height, sun });
  });
}
