/** Files that were uploaded, by the hashes that their uploads were given. */
import { type Result, ok, refused } from '../../core/result/result';
import { contentPath, has } from '../files/content-store';
import type { FileOnDisk } from './import-model';

export interface Upload {
  upload: string;
  name: string;
}

/** Where they lie; a refusal when one has not arrived. */
export async function findUploads(uploads: readonly Upload[]): Promise<Result<FileOnDisk[]>> {
  if (uploads.length === 0) return refused('choose a model file to bring in');
  for (const { upload, name } of uploads)
    if (!(await has('incoming', upload)))
      return refused(`the upload of "${name}" is incomplete; bring it in again`, 'missing_upload');
  return ok(uploads.map(({ upload, name }) => ({ path: contentPath('incoming', upload), name })));
}
