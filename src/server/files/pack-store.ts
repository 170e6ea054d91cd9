/**
 * Scene packs on disk, found by what made them: model, origin, studio, and the code that compiled them. Those used last
 * are kept, up to a limit; any can be made again. Beside each lies its length and hash, so that a damaged one is found out
 * and made again.
 */
import { createHash, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { canonicalJson } from '../../core/brief/brief';
import { config } from '../config';
import { keepSum, keptSum, sumOf, sumPath } from './checksum';
import { addStorage, setStorage, storageOf } from '../store/storage';

const KEY = /^[0-9a-f]{64}$/;
const folder = () => join(config.dataDir, 'packs');

/** Null when it is no key. */
export const packPath = (key: string): string | null => (KEY.test(key) ? join(folder(), key.slice(0, 2), key) : null);

let code: string | null = null;

/** `of`: all that decides the pack beside the code. */
export function packKey(model: string, of: object): string {
  code ??=
    readFileSync(config.built('bundles.stamp'), 'utf8') +
    createHash('sha256')
      .update(readFileSync(config.built('kernel.wasm')))
      .digest('hex');
  return createHash('sha256').update(canonicalJson({ code, model, of })).digest('hex');
}

/** Null when there is none, or when it is not what was kept. */
export async function readPack(key: string): Promise<Uint8Array | null> {
  const path = packPath(key)!;
  const bytes = await readFile(path).catch(() => null);
  if (!bytes) return null;
  const sum = await keptSum(path);
  if (sumOf(bytes) !== sum) {
    // what was counted when it was kept, which is no longer its length
    await drop(path, sum === null ? bytes.byteLength : Number.parseInt(sum, 10));
    return null;
  }
  const now = new Date();
  await utimes(path, now, now).catch(() => {});
  return bytes;
}

/** Whether there is one of the length that was kept; its bytes are looked at when it is read. */
export async function hasPack(key: string): Promise<boolean> {
  const path = packPath(key)!;
  const [state, sum] = await Promise.all([stat(path).catch(() => null), keptSum(path)]);
  return state !== null && sum !== null && Number.parseInt(sum, 10) === state.size;
}

async function drop(path: string, bytes: number): Promise<void> {
  for (const file of [path, sumPath(path)]) await rm(file, { force: true });
  addStorage('packs', -bytes);
}

export async function keepPack(key: string, bytes: Uint8Array): Promise<void> {
  const path = packPath(key)!;
  await mkdir(dirname(path), { recursive: true });
  const part = `${path}.${randomUUID()}.part`;
  const before = await stat(path).then(
    (state) => state.size,
    () => 0
  );
  await writeFile(part, bytes, { flush: true });
  await rename(part, path);
  await keepSum(path, sumOf(bytes));
  addStorage('packs', bytes.byteLength - before);
  await trim();
}

/** The pack of a key, made now when there is none. */
export async function findPack(key: string, build: () => Uint8Array): Promise<Uint8Array> {
  const kept = await readPack(key);
  if (kept) return kept;
  const bytes = build();
  await keepPack(key, bytes);
  return bytes;
}

/** Removes those used longest ago while all take more than the limit. The newest stays, however large. */
async function trim(): Promise<void> {
  if (storageOf('packs') <= config.maxPackBytes) return;
  const files: { path: string; bytes: number; used_ms: number }[] = [];
  for (const entry of await readdir(folder(), { recursive: true, withFileTypes: true })) {
    if (!entry.isFile() || entry.name.endsWith('.sum')) continue;
    const path = join(entry.parentPath, entry.name);
    const state = await stat(path).catch(() => null);
    if (state) files.push({ path, bytes: state.size, used_ms: state.mtimeMs });
  }
  files.sort((a, b) => b.used_ms - a.used_ms);
  let kept = 0;
  for (const [i, file] of files.entries()) {
    if (i > 0 && kept + file.bytes > config.maxPackBytes)
      for (const path of [file.path, sumPath(file.path)]) await rm(path, { force: true });
    else kept += file.bytes;
  }
  setStorage('packs', kept);
}
