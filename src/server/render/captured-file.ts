/** An image of captured surroundings from disk: .hdr or .exr by content, not by name. */
import { readFile } from 'node:fs/promises';
import { readExr } from '../../formats/exr/read-exr';
import { type FloatImage, readHdr, readHdrHeader } from '../../formats/hdr/read-hdr';
import { readExrHeader } from '../../formats/exr/exr-header';
import { ImageRefused } from '../../formats/image/refused';
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
  try {
    return decodeCaptured(bytes);
  } catch (error) {
    if (!(error instanceof ImageRefused)) throw error;
    throw new BriefRefused('surroundings.file', `surroundings.file "${shownName}" ${error.message}`);
  }
}

/** Throws an ImageRefused, whose message goes on after the file's name. */
export function decodeCaptured(bytes: Uint8Array): FloatImage {
  const image = isExr(bytes) ? readExr(bytes) : readHdr(bytes);
  for (let i = 0; i < image.pixels.length; i++)
    if (!(image.pixels[i]! >= 0) || image.pixels[i] === Number.POSITIVE_INFINITY) image.pixels[i] = 0;
  return image;
}

/** What its header says, without decoding it. */
export const capturedSize = (bytes: Uint8Array): { width: number; height: number } =>
  isExr(bytes) ? readExrHeader(bytes) : readHdrHeader(bytes);

const isExr = (bytes: Uint8Array): boolean => bytes[0] === 0x76 && bytes[1] === 0x2f;
