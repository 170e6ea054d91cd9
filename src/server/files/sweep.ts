/**
 * Collects files that nothing owns: uploads that became nothing or were used, parts of writes that were interrupted, films
 * and models whose rows are gone, colour tables that no brief names, and files made for download that can be made again. A
 * file is old enough when no work under way can still have it in hand.
 */
import { readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { config } from '../config';
import { THUMBNAIL } from './previews';

const HOUR_MS = 3_600_000;
const UPLOAD_MS = 24 * HOUR_MS;
const DOWNLOAD_MS = 24 * HOUR_MS;
const THUMBNAIL_MS = 30 * 24 * HOUR_MS;

export interface Owners {
  isProof(id: string): boolean;
  isModel(sha256: string): boolean;
  isOriginal(sha256: string): boolean;
  isTable(sha256: string): boolean;
}

interface Swept {
  files: number;
  bytes: number;
  /** Of `bytes`, those of models. */
  modelBytes: number;
}

/** `temporary`: where the system keeps folders for a while. */
export async function sweepFiles(owners: Owners, now = Date.now(), temporary = tmpdir()): Promise<Swept> {
  const swept: Swept = { files: 0, bytes: 0, modelBytes: 0 };
  const drop = async (path: string, bytes: number) => {
    await rm(path, { recursive: true, force: true });
    swept.files++;
    swept.bytes += bytes;
  };
  for (const area of [
    'incoming',
    'models',
    'originals',
    'captured',
    'photometric',
    'backdrops',
    'profiles',
    'tables',
    'previews',
    'films'
  ])
    for (const { path, name, bytes, age } of await filesOf(join(config.dataDir, area), now)) {
      if (/\.part\b/.test(name)) {
        if (age > HOUR_MS) await drop(path, bytes);
      } else if (area === 'incoming') {
        if (age > UPLOAD_MS) await drop(path, bytes);
      } else if (area === 'models') {
        if (age <= HOUR_MS || owners.isModel(name)) continue;
        await drop(path, bytes);
        swept.modelBytes += bytes;
      } else if (area === 'originals') {
        if (age > HOUR_MS && !owners.isOriginal(name)) await drop(path, bytes);
      } else if (area === 'tables') {
        // one that was just brought in is named by no brief yet
        if (age > UPLOAD_MS && !owners.isTable(name)) await drop(path, bytes);
      } else if (area === 'previews') {
        // of a state of a picture that is long past
        if (name.startsWith(THUMBNAIL) && age > THUMBNAIL_MS) await drop(path, bytes);
      } else if (area === 'films') {
        if (/^(delivery|stage)-/.test(name) && age > DOWNLOAD_MS) await drop(path, bytes);
      }
    }
  const films = join(config.dataDir, 'films');
  for (const proof of await readdir(films).catch(() => [])) {
    if (owners.isProof(proof)) continue;
    const path = join(films, proof);
    if ((await ageOf(path, now)) > HOUR_MS) await drop(path, 0);
  }
  for (const name of await readdir(temporary).catch(() => []))
    if (name.startsWith('sphaera-import-') && (await ageOf(join(temporary, name), now)) > UPLOAD_MS)
      await drop(join(temporary, name), 0);
  return swept;
}

async function ageOf(path: string, now: number): Promise<number> {
  const state = await stat(path).catch(() => null);
  return state ? now - state.mtimeMs : 0;
}

async function filesOf(
  folder: string,
  now: number
): Promise<{ path: string; name: string; bytes: number; age: number }[]> {
  const entries = await readdir(folder, { withFileTypes: true, recursive: true }).catch(() => []);
  const files = [];
  for (const entry of entries) {
    if (!entry.isFile()) continue;
    const path = join(entry.parentPath, entry.name);
    const state = await stat(path).catch(() => null);
    if (state) files.push({ path, name: entry.name, bytes: state.size, age: now - state.mtimeMs });
  }
  return files;
}
