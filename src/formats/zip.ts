/**
 * Unpacks a ZIP with limits: names stay names (never paths on disk), totals and ratios are checked before a byte is
 * unpacked.
 */
import { type UnzipFileInfo, unzipSync } from 'fflate';
import { ModelRefused } from './model/model-refused';

const MAX_FILES = 5000;
const MAX_RATIO = 200; // text models pack 20 to 50 fold; a bomb thousands
// small files of one value pack better than any ratio
const FREE_BYTES = 64 * 2 ** 20;

export function unpackZip(bytes: Uint8Array, mostBytes: number): Map<string, Uint8Array> {
  let total = 0;
  let packed = 0;
  let files = 0;
  const filter = (file: UnzipFileInfo) => {
    if (file.name.endsWith('/') || file.name.startsWith('__MACOSX/')) return false;
    total += file.originalSize;
    packed += file.size;
    if (packed > bytes.length)
      throw new ModelRefused('zip_bomb', 'the files of this ZIP overlap; pack the model again with another program');
    if (++files > MAX_FILES)
      throw new ModelRefused(
        'zip_bomb',
        `this ZIP holds more than ${MAX_FILES} files; pack only the model and its textures`
      );
    if (
      total > mostBytes ||
      total > FREE_BYTES + packed * MAX_RATIO ||
      (file.originalSize > 2 ** 20 && file.originalSize > file.size * MAX_RATIO)
    )
      throw new ModelRefused(
        'zip_bomb',
        `this ZIP unpacks to more than is allowed (${Math.round(total / 2 ** 20)} MB from ` +
          `${Math.round(bytes.length / 2 ** 20)} MB); pack only the model and its textures`
      );
    return true;
  };
  try {
    return new Map(
      Object.entries(unzipSync(bytes, { filter })).map(([name, data]) => [name.replaceAll('\\', '/'), data])
    );
  } catch (error) {
    if (error instanceof ModelRefused) throw error;
    throw new ModelRefused('truncated', 'this ZIP is damaged or cut off; pack it again and bring it in once more');
  }
}
