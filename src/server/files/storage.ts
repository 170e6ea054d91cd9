/** Counts what is stored once, when the service starts. From then on the sums follow each file that comes or goes. */
import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { config } from '../config';
import { filmSizes, setFilmSize, setStorage } from '../store/storage';
import { proofFolder } from './proof-files';

export async function recountStorage(): Promise<void> {
  for (const area of ['models', 'packs'] as const) setStorage(area, await folderBytes(join(config.dataDir, area)));
  for (const { id, disk_bytes } of filmSizes()) {
    const bytes = await folderBytes(proofFolder(id));
    if (bytes !== disk_bytes) setFilmSize(id, bytes);
  }
}

/** What a folder's files take on disk. Unused slots of a film are holes, so blocks are counted, not lengths. */
export async function folderBytes(folder: string): Promise<number> {
  const entries = await readdir(folder, { withFileTypes: true, recursive: true }).catch(() => []);
  let sum = 0;
  for (const entry of entries) {
    if (!entry.isFile()) continue;
    const state = await stat(join(entry.parentPath, entry.name)).catch(() => null);
    sum += state ? state.blocks * 512 : 0;
  }
  return sum;
}
