/** An image of captured surroundings from disk: .hdr or .exr by content, not by name. */
import { readFile } from 'node:fs/promises';
import { readExr } from '../../formats/exr/read-exr';
import { type FloatImage, readHdr } from '../../formats/hdr/read-hdr';
import type { Surroundings } from '../../core/brief/brief';
import { contentPath } from '../files/content-store';
import { BriefRefused } from '../../core/brief/refused';

/** The image of captured surroundings; null for others. */
export const readCapturedOf = async (surroundings: Surroundings): Promise<FloatImage | null> =>
  surroundings.kind === 'captured'
    ? readCaptured(contentPath('captured', surroundings.file), 'the captured image')
    : null;

export async function readCaptured(path: string, shownName: string): Promise<FloatImage> {
  let bytes: Uint8Array;
  try {
    bytes = await readFile(path);
  } catch {
    throw new BriefRefused('surroundings.file', `surroundings.file "${shownName}" cannot be read`);
  }
  return decodeCaptured(bytes, shownName);
}

export function decodeCaptured(bytes: Uint8Array, shownName: string): FloatImage {
  try {
    const image = bytes[0] === 0x76 && bytes[1] === 0x2f ? readExr(bytes) : readHdr(bytes);
    for (let i = 0; i < image.pixels.length; i++)
      if (!(image.pixels[i]! >= 0) || image.pixels[i] === Number.POSITIVE_INFINITY) image.pixels[i] = 0;
    return image;
  } catch (error) {
    throw new BriefRefused(
      'surroundings.file',
      `surroundings.file "${shownName}" is not usable: ${(error as Error).message}`
    );
  }
}
