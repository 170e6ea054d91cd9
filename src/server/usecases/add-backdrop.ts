/** A picture to stand behind models, into the library: read once, and kept upright and in sRGB. */
import type { BackdropDto } from '../../contracts/dto';
import { normaliseBackdrop, PictureRefused } from '../../formats/image/backdrop';
import { contentPath, has, isContentHash, put } from '../files/content-store';
import { insertBackdrop } from '../store/backdrops';
import { type Result, ok, refused } from '../../core/result/result';

export async function addBackdrop(upload: string, fileName: string): Promise<Result<BackdropDto>> {
  if (!(await has('incoming', upload)))
    return refused(`"${fileName}" was not uploaded completely. Choose it again`, 'missing_upload');
  try {
    const { png, width, height } = await normaliseBackdrop(contentPath('incoming', upload));
    const { sha256 } = await put('backdrops', png);
    const added: BackdropDto = {
      sha256,
      name: fileName.replace(/\.[A-Za-z0-9]+$/, '').slice(0, 80),
      width_px: width,
      height_px: height
    };
    insertBackdrop({ ...added, created_at_ms: Date.now() });
    return ok(added);
  } catch (error) {
    if (error instanceof PictureRefused) return refused(`"${fileName}" ${error.message}`);
    throw error;
  }
}

/** Null when it is no hash. */
export const backdropFile = (sha256: string): string | null =>
  isContentHash(sha256) ? contentPath('backdrops', sha256) : null;
