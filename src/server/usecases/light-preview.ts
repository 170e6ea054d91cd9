/** The picture of surroundings that a user has saved; rendered when it is first asked for. */
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { readPart } from '../../core/brief/kept-part';
import { isWhole, keepSum, sumOf } from '../files/checksum';
import { previewPath } from '../files/previews';
import { runTask } from '../jobs/run-task';
import { findKept } from '../store/kept';
import { attendJob } from './attend-job';
import { underWay } from './under-way';

const ID = /^[0-9a-zA-Z-]{6,40}$/;

/** Path of the PNG; null when there are no such surroundings or they cannot be rendered. */
export function lightPreview(id: string): Promise<string | null> {
  return ID.test(id) ? underWay('light preview', id, () => make(id)) : Promise.resolve(null);
}

async function make(id: string): Promise<string | null> {
  const path = previewPath(id);
  if (await isWhole(path)) return path;
  const kept = findKept(id);
  const surroundings = kept?.kind === 'surroundings' ? readPart(kept.part_json).surroundings : undefined;
  if (!surroundings) return null;
  const made = await attendJob('preview', null, () => runTask('surroundings', { surroundings }));
  if (!made.ok) return null;
  await mkdir(dirname(path), { recursive: true });
  const part = `${path}.${process.pid}.part`;
  await writeFile(part, made.value);
  await rename(part, path);
  await keepSum(path, sumOf(made.value));
  return path;
}
