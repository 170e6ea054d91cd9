/** The tree of a model. The last ones are kept in memory; a model never changes under its hash. */
import { open } from 'node:fs/promises';
import { LRUCache } from 'lru-cache';
import { type Result, ok, refused } from '../../core/result/result';
import type { ModelPart } from '../../core/scene/model-part';
import { listParts, readHead } from '../../formats/gltf/list-parts';
import { contentPath, has, isContentHash } from '../files/content-store';
import { singleton } from '../jobs/singleton';

const known = () => singleton('model-parts', () => new LRUCache<string, ModelPart[]>({ max: 8 }));

export async function listModelParts(sha256: string): Promise<Result<ModelPart[]>> {
  if (!isContentHash(sha256) || !(await has('models', sha256)))
    return refused('this model is no longer there; reload the page', 'gone');
  const there = known().get(sha256);
  if (there) return ok(there);
  const parts = listParts(readHead(await headOf(contentPath('models', sha256))));
  known().set(sha256, parts);
  return ok(parts);
}

/** A GLB up to the end of its description, without its geometry. */
async function headOf(path: string): Promise<Uint8Array> {
  const file = await open(path);
  try {
    const start = Buffer.alloc(20);
    await file.read(start, 0, start.length, 0);
    const head = Buffer.alloc(20 + start.readUInt32LE(12));
    await file.read(head, 0, head.length, 0);
    return head;
  } finally {
    await file.close();
  }
}
