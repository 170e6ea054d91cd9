/** The picture of surroundings that a user has kept; rendered when it is first asked for, by a process of its own. */
import { access, mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { readPart } from '../../core/brief/kept-part';
import { config } from '../config';
import { findKept } from '../store/kept';
import { runWorker } from './run-worker';

const ID = /^[0-9a-zA-Z-]{6,40}$/;
/** Those under way: what is asked for twice is rendered once. */
const underWay = new Map<string, Promise<string | null>>();

const pathOf = (id: string) => join(config.dataDir, 'previews', `${id}.png`);

/** Path of the PNG; null when there are no such surroundings or they cannot be rendered. */
export function lightPreview(id: string): Promise<string | null> {
  if (!ID.test(id)) return Promise.resolve(null);
  const found = underWay.get(id) ?? make(id).finally(() => underWay.delete(id));
  underWay.set(id, found);
  return found;
}

async function make(id: string): Promise<string | null> {
  const path = pathOf(id);
  if (
    await access(path).then(
      () => true,
      () => false
    )
  )
    return path;
  const kept = findKept(id);
  if (kept?.kind !== 'surroundings') return null;
  await mkdir(join(config.dataDir, 'previews'), { recursive: true });
  const part = `${path}.${process.pid}.part`;
  const code = await runWorker('light-preview-worker', [JSON.stringify(readPart(kept.part_json).surroundings), part], {
    SPHAERA_THREADS: String(config.threads)
  });
  if (code === 0) await rename(part, path);
  else await rm(part, { force: true });
  return code === 0 ? path : null;
}

export const dropLightPreview = (id: string): Promise<void> =>
  ID.test(id) ? rm(pathOf(id), { force: true }) : Promise.resolve();
