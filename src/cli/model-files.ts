/** A model on disk with what belongs to it: its materials, its data and its pictures, from its folder and those in it. */
import { readdir, stat } from 'node:fs/promises';
import { dirname, join, relative, resolve } from 'node:path';
import { readerOf } from '../formats/model';
import type { FileOnDisk } from '../server/usecases/import-model';

const IS_ARCHIVE = /\.(zip|zae|usdz|3mf)$/i;
const MOST_FILES = 500;
const MOST_BYTES = 1e9;
const MOST_FOLDERS_DEEP = 3;

/** The model first. What is more than a model may have beside it stays out. */
export async function modelFiles(model: string): Promise<FileOnDisk[]> {
  const path = resolve(model);
  const main = { path, name: path.slice(dirname(path).length + 1) };
  const endings = new Set(readerOf(model)?.comesWith ?? []);
  if (endings.size === 0 || IS_ARCHIVE.test(model)) return [{ path, name: model }];
  const found: FileOnDisk[] = [];
  let bytes = 0;
  const look = async (folder: string, deep: number) => {
    for (const entry of await readdir(folder, { withFileTypes: true }).catch(() => [])) {
      const at = join(folder, entry.name);
      if (entry.isDirectory() && deep < MOST_FOLDERS_DEEP && !entry.name.startsWith('.')) await look(at, deep + 1);
      else if (
        entry.isFile() &&
        at !== path &&
        endings.has(entry.name.slice(entry.name.lastIndexOf('.') + 1).toLowerCase())
      ) {
        const { size } = await stat(at);
        if (found.length >= MOST_FILES || bytes + size > MOST_BYTES) return;
        bytes += size;
        found.push({ path: at, name: relative(dirname(path), at).replaceAll('\\', '/') });
      }
    }
  };
  await look(dirname(path), 0);
  return [main, ...found];
}
