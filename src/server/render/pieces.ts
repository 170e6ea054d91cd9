/** The pieces of the library as files: drawn when first wanted, kept beside the code that drew them. */
import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { isPieceKey, type PieceKey } from '../../core/catalogue/pieces';
import type { Scene } from '../../core/scene/scene';
import { drawPiece } from '../../drawing/pieces';
import { readScene } from '../../formats/gltf/read-scene';
import { contentPath, has, isContentHash } from '../files/content-store';
import { piecePath } from '../files/piece-path';

/** As a GLB; its path. */
export async function makePiece(key: PieceKey): Promise<{ path: string; glb: Uint8Array }> {
  const path = piecePath(key);
  const kept = await readFile(path).catch(() => null);
  if (kept) return { path, glb: new Uint8Array(kept) };
  const glb = await drawPiece(key);
  await mkdir(dirname(path), { recursive: true });
  const temporary = `${path}.${randomUUID()}.part`;
  await writeFile(temporary, glb);
  await rename(temporary, path);
  return { path, glb };
}

const known = new Map<string, Scene>();
// models are large: as many are kept in memory as a picture usually has
const MOST_KNOWN = 12;

/** A piece by its key, or a model that was brought in by its hash. Throws a RangeError when there is none. */
export async function readPiece(model: string): Promise<Scene> {
  const there = known.get(model);
  if (there) return there;
  const scene = await readScene(await bytesOf(model));
  if (known.size >= MOST_KNOWN) known.delete(known.keys().next().value!);
  known.set(model, scene);
  return scene;
}

async function bytesOf(model: string): Promise<Uint8Array> {
  if (isPieceKey(model)) return (await makePiece(model)).glb;
  if (isContentHash(model) && (await has('models', model)))
    return new Uint8Array(await readFile(contentPath('models', model)));
  throw new RangeError(`placed.model "${model.slice(0, 16)}" is not here; choose another piece, or bring it in again`);
}
