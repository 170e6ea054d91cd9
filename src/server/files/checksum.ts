/**
 * Files that can be made again lie beside their length and hash, so that a damaged one is found out when it is read.
 */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';

export const sumPath = (path: string): string => `${path}.sum`;
export const sumOf = (bytes: Uint8Array): string =>
  `${bytes.byteLength} ${createHash('sha256').update(bytes).digest('hex')}`;
export const keepSum = (path: string, sum: string): Promise<void> => writeFile(sumPath(path), sum, { flush: true });
/** Null when there is none. */
export const keptSum = (path: string): Promise<string | null> => readFile(sumPath(path), 'utf8').catch(() => null);

/** Of a file of any length. */
export async function sumOfFile(path: string): Promise<string> {
  const hash = createHash('sha256');
  let bytes = 0;
  await pipeline(createReadStream(path), async (parts) => {
    for await (const part of parts) {
      hash.update(part);
      bytes += part.length;
    }
  });
  return `${bytes} ${hash.digest('hex')}`;
}

/** Whether a file is there and is what was kept. */
export async function isWhole(path: string): Promise<boolean> {
  const sum = await keptSum(path);
  return sum !== null && sum === (await sumOfFile(path).catch(() => null));
}
