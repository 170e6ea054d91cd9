/** Deletes for good what was removed longer ago than it can be brought back, and frees its files. */
import { rm, stat } from 'node:fs/promises';
import { REMOVABLE_KINDS, RESTORABLE_MS } from '../../core/catalogue/removable';
import { contentPath } from './content-store';
import { pressPath, previewPath } from './previews';
import { proofFolder } from './proof-files';
import { deleteRow, listRemoved, modelsOnlyOf, proofsUnder } from '../store/removal';
import { addStorage } from '../store/storage';

/** How many things were deleted. */
export async function purgeRemoved(now = Date.now()): Promise<number> {
  let count = 0;
  for (const kind of REMOVABLE_KINDS)
    for (const { id } of listRemoved(kind, now - RESTORABLE_MS)) {
      const proofs = proofsUnder(kind, id);
      const models = kind === 'project' ? modelsOnlyOf(id) : [];
      // the rows first: files without an owner are collected later, an owner without its files could not be shown
      deleteRow(kind, id);
      for (const proof of proofs) await rm(proofFolder(proof), { recursive: true, force: true });
      for (const model of models) addStorage('models', -(await free(contentPath('models', model))));
      if (kind === 'part') await free(previewPath(id));
      if (kind === 'captured')
        for (const path of [contentPath('captured', id), previewPath(`strip-${id}`)]) await free(path);
      if (kind === 'photometric') await free(contentPath('photometric', id));
      if (kind === 'backdrop') await free(contentPath('backdrops', id));
      if (kind === 'profile') for (const path of [contentPath('profiles', id), pressPath(id)]) await free(path);
      count++;
    }
  return count;
}

/** Deletes a file; its bytes. */
async function free(path: string): Promise<number> {
  const bytes = await stat(path).then(
    (s) => s.size,
    () => 0
  );
  await rm(path, { force: true });
  return bytes;
}
