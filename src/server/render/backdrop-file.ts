/** The picture behind a model, read from disk as large as it will be seen. */
import type { Background } from '../../core/brief/brief';
import { type BackdropImage, backdropPixels } from '../../core/finishing/background';
import type { Development } from '../../core/finishing/develop';
import { WHOLE_SHEET } from '../../core/output/size';
import { readBackdropPixels } from '../../formats/image/backdrop';
import { contentPath, isContentHash } from '../files/content-store';
import { BriefRefused } from '../../core/brief/refused';

/** Where a picture that was brought in lies. */
export const inApplication = (file: string): string => {
  if (!isContentHash(file)) throw new Error('the file must be the hash of a picture that was brought in');
  return contentPath('backdrops', file);
};

/**
 * Null for backgrounds that are no picture. `pathOf`: where the file of a background lies; in the application by its
 * hash.
 */
export async function readBackdrop(
  background: Background,
  { width, height, within = WHOLE_SHEET }: Pick<Development, 'width' | 'height' | 'within'>,
  pathOf: (file: string) => string = inApplication
): Promise<BackdropImage | null> {
  if (background.kind !== 'picture') return null;
  try {
    return await readBackdropPixels(pathOf(background.file), (picture) =>
      backdropPixels(picture, background, width / within.width, height / within.height)
    );
  } catch (error) {
    throw new BriefRefused(
      'finish.background.file',
      `finish.background.file: the picture behind the model cannot be read ` +
        `(${(error as Error).message}); bring it in again, or choose another background`
    );
  }
}
