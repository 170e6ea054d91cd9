/** Keeps a model that was read, with its form before the repairs. */
import { put } from '../files/content-store';
import type { RevisionRow } from '../store/projects';
import { addStorage } from '../store/storage';
import type { ImportedModel } from './import-model';

export async function storeModel({
  glb,
  unrepaired
}: ImportedModel): Promise<Pick<RevisionRow, 'glb_sha256' | 'unrepaired_sha256'>> {
  const { sha256, added } = await put('models', glb);
  addStorage('models', added);
  return {
    glb_sha256: sha256,
    unrepaired_sha256: unrepaired && (await put('originals', unrepaired)).sha256
  };
}
