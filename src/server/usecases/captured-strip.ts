/**
 * The strip of a captured image: made when the image comes in, and for those from before when it is first asked for.
 */
import { mkdir, rename } from 'node:fs/promises';
import { dirname } from 'node:path';
import { isWhole, keepSum, sumOfFile } from '../files/checksum';
import { contentPath } from '../files/content-store';
import { previewPath } from '../files/previews';
import { findCaptured } from '../store/projects';
import { examineCaptured } from './examine-captured';

const pathOf = (sha256: string) => previewPath(`strip-${sha256}`);

/** Path of the PNG; null when there is no such image or it cannot be read. */
export async function capturedStrip(sha256: string): Promise<string | null> {
  const image = findCaptured(sha256);
  if (!image) return null;
  const path = pathOf(sha256);
  if (await isWhole(path)) return path;
  return examineCaptured(contentPath('captured', sha256), image.name, false, undefined, async (found, out) =>
    found.ok ? keepStrip(out, sha256) : null
  );
}

/** Keeps what examineCaptured wrote beside `out`; its path. */
export async function keepStrip(out: string, sha256: string): Promise<string> {
  await mkdir(dirname(pathOf(sha256)), { recursive: true });
  await rename(`${out}.png`, pathOf(sha256));
  await keepSum(pathOf(sha256), await sumOfFile(pathOf(sha256)));
  return pathOf(sha256);
}
