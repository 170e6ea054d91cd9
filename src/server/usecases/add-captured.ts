/** A captured 360 degree image into the library: read once to be sure that it can be used. */
import { readFile } from 'node:fs/promises';
import { contentPath, has, put } from '../files/content-store';
import { decodeCaptured } from '../render/captured-file';
import { insertCaptured } from '../store/projects';
import { done, type Outcome, refused } from './identify';

export async function addCaptured(upload: string, name: string): Promise<Outcome<{ sha256: string }>> {
  if (!(await has('incoming', upload))) return refused(`"${name}" did not arrive whole; bring it in again`, 'missing_upload');
  const bytes = new Uint8Array(await readFile(contentPath('incoming', upload)));
  try {
    const { width, height } = decodeCaptured(bytes, name);
    if (Math.abs(width / height - 2) > 0.02) return refused(`"${name}" is ${width} × ${height} px; surroundings must be a full 360° image, twice as wide as high`);
    const { sha256 } = await put('captured', bytes);
    insertCaptured({ sha256, name: name.replace(/\.[A-Za-z0-9]+$/, '').slice(0, 80), width_px: width, height_px: height, created_at_ms: Date.now() });
    return done({ sha256 });
  } catch (error) {
    return refused((error as Error).message.replace(/^surroundings\.file /, ''));
  }
}
