/** Room on the disk that data is kept on. */
import { statfsSync } from 'node:fs';
import { config } from '../config';

/** Infinity where it cannot be asked. */
export function freeBytes(): number {
  try {
    const { bavail, bsize } = statfsSync(config.dataDir);
    return bavail * bsize;
  } catch {
    return Number.POSITIVE_INFINITY;
  }
}
