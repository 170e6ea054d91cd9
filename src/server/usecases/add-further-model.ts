/** A second file in a project: a model that can be placed in its pictures. */
import { type Result, ok, refused } from '../../core/result/result';
import { put } from '../files/content-store';
import { insertFurtherModel } from '../store/model-files';
import { findProject, touchProject } from '../store/projects';
import { addStorage } from '../store/storage';
import { attendJob } from './attend-job';
import { findUploads, type Upload } from './find-uploads';
import { importModel } from './import-model';

const MOST_LETTERS = 60;

/** A file whose format states no unit is read in the one that its size speaks for. */
export async function addFurtherModel(
  projectId: string,
  uploads: Upload[],
  signal?: AbortSignal
): Promise<Result<{ model: string; name: string }>> {
  if (!findProject(projectId)) return refused('this project is no longer there; reload the page', 'gone');
  const files = await findUploads(uploads);
  if (!files.ok) return files;
  return attendJob('import', projectId, async (): Promise<Result<{ model: string; name: string }>> => {
    const read = await importModel({ files: files.value, unit: null, up: null, signal });
    if (!read.ok) return read;
    const { glb, report } = read.value;
    const { sha256, added } = await put('models', glb);
    addStorage('models', added);
    const name = nameOf(report.source);
    insertFurtherModel({
      project_id: projectId,
      glb_sha256: sha256,
      name,
      height_m: report.size_m[1],
      created_at_ms: Date.now()
    });
    touchProject(projectId);
    return ok({ model: sha256, name });
  });
}

const nameOf = (source: string): string =>
  source
    .slice(source.lastIndexOf('/') + 1)
    .replace(/\.[^.]*$/, '')
    .replace(/[_-]+/g, ' ')
    .trim()
    .slice(0, MOST_LETTERS) || 'Model';
