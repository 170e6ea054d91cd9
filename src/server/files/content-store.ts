/**
 * Files by the hash of their content. Written under a temporary name, synced, renamed: a file that is there is whole.
 */
import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { access, mkdir, open, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Refusal } from '../../core/result/result';
import { config } from '../config';

export type FileKind =
  | 'models'
  | 'originals'
  | 'captured'
  | 'photometric'
  | 'backdrops'
  | 'tables'
  | 'profiles'
  | 'incoming';
const SHA256 = /^[0-9a-f]{64}$/;

export const isContentHash = (text: string): boolean => SHA256.test(text);

export function contentPath(kind: FileKind, sha256: string): string {
  if (!SHA256.test(sha256))
    throw new Error(`contentPath: expected a sha256, got ${JSON.stringify(sha256.slice(0, 80))}`);
  return join(config.dataDir, kind, sha256.slice(0, 2), sha256);
}

export const has = (kind: FileKind, sha256: string): Promise<boolean> =>
  access(contentPath(kind, sha256)).then(
    () => true,
    () => false
  );

/** An upload that was used, or is of no use. */
export const discard = (kind: 'incoming', sha256: string): Promise<void> =>
  rm(contentPath(kind, sha256), { force: true });

/** `added`: bytes that the store grew by; none for a file that was there. */
export async function put(
  kind: FileKind,
  source: Uint8Array | Readable,
  mostBytes = Number.POSITIVE_INFINITY
): Promise<{ sha256: string; bytes: number; added: number }> {
  const folder = join(config.dataDir, kind);
  await mkdir(folder, { recursive: true });
  const temporary = join(folder, `.${randomUUID()}.part`);
  const hash = createHash('sha256');
  let bytes = 0;
  const meter = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (bytes > mostBytes) return done(new FileTooLarge(mostBytes));
      hash.update(chunk);
      done(null, chunk);
    }
  });
  try {
    await pipeline(
      source instanceof Uint8Array ? Readable.from([source]) : source,
      meter,
      createWriteStream(temporary)
    );
    const file = await open(temporary, 'r+');
    await file.sync();
    await file.close();
    const sha256 = hash.digest('hex');
    await mkdir(join(folder, sha256.slice(0, 2)), { recursive: true });
    const path = contentPath(kind, sha256);
    const known = await has(kind, sha256);
    await rename(temporary, path);
    return { sha256, bytes, added: known ? 0 : bytes };
  } catch (error) {
    await rm(temporary, { force: true });
    throw error;
  }
}

export class FileTooLarge extends Refusal {
  constructor(readonly mostBytes: number) {
    super('too_large', `the file is larger than ${Math.round(mostBytes / 2 ** 20)} MB`);
  }
}
