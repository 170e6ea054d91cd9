/**
 * The photometric files that a brief's lamps name, read from disk; the last few are kept, because every change of a
 * lamp asks for them.
 */
import { readFile } from 'node:fs/promises';
import type { Brief } from '../../core/brief/brief';
import { resampleWeb, type PhotometricWeb } from '../../core/lights/web/web';
import type { Webs } from '../../core/scene/added-lamps';
import { readPhotometric } from '../../formats/photometry/read-photometric';
import { contentPath } from '../files/content-store';
import { BriefRefused } from '../../core/brief/refused';

const known = new Map<string, PhotometricWeb>();
const MAX_KNOWN = 32;

const IS_HASH = /^[0-9a-f]{64}$/;
const inApplication = (key: string) => {
  if (!IS_HASH.test(key))
    throw new BriefRefused('lamps.photometry', 'lamps.photometry must be the hash of a file that was brought in');
  return contentPath('photometric', key);
};

/** `pathOf`: where the file of a key lies; in the application by its hash. */
export async function readWebs({ lamps }: Brief, pathOf: (key: string) => string = inApplication): Promise<Webs> {
  const keys = [
    ...new Set([...lamps.groups, ...lamps.added].flatMap((l) => (l.photometry === null ? [] : [l.photometry])))
  ];
  return new Map(await Promise.all(keys.map(async (key) => [key, await readWeb(key, pathOf(key))] as const)));
}

async function readWeb(key: string, path: string): Promise<PhotometricWeb> {
  const found = known.get(key);
  if (found) return found;
  const bytes = await readFile(path).catch(() => {
    throw new BriefRefused(
      'lamps.photometry',
      `the photometric file "${key}" of a lamp cannot be read; attach it again`
    );
  });
  try {
    const web = resampleWeb(readPhotometric(bytes).web);
    if (known.size >= MAX_KNOWN) known.delete(known.keys().next().value!);
    known.set(key, web);
    return web;
  } catch (error) {
    throw new BriefRefused(
      'lamps.photometry',
      `the photometric file "${key}" of a lamp is not usable: ${(error as Error).message}`
    );
  }
}
