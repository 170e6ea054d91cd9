/** The files that a meshed model was read from, kept so that it can be meshed finer or coarser. */
import { createReadStream } from 'node:fs';
import { refused, type Result, ok } from '../../core/result/result';
import { type Fineness, METRES_Y_UP } from '../../core/units/read-as';
import type { ImportReport } from '../../formats/model/import-report';
import { contentPath, put } from '../files/content-store';
import { database } from '../store/database';
import { listOriginals, type OriginalFile } from '../store/model-files';
import { findProject, latestRevision, replaceModel, touchProject } from '../store/projects';
import { addStorage } from '../store/storage';
import { attendJob } from './attend-job';
import { type FileOnDisk, importModel } from './import-model';
import { isModelInUse, MODEL_IN_USE } from './model-in-use';

/** Copies of the files that a report was made of; none where nothing was meshed. */
export async function keepOriginals(files: readonly FileOnDisk[], report: ImportReport): Promise<OriginalFile[]> {
  if (!report.fineness) return [];
  const kept: OriginalFile[] = [];
  for (const { name, path } of files)
    kept.push({ name, sha256: (await put('originals', createReadStream(path))).sha256 });
  return kept;
}

/** Meshes the solids of the newest revision anew. Pictures keep all that they have; proofs stay, as of another model. */
export async function remeshModel(projectId: string, fineness: Fineness, signal?: AbortSignal): Promise<Result<null>> {
  const revision = findProject(projectId) && latestRevision(projectId);
  if (!revision) return refused('this project is no longer there; reload the page', 'gone');
  const before = JSON.parse(revision.report_json) as ImportReport;
  if (before.fineness === fineness) return ok(null);
  const files = listOriginals(revision.id).map(({ name, sha256 }) => ({
    name,
    path: contentPath('originals', sha256)
  }));
  if (files.length === 0)
    return refused('the file that this model was meshed from was not kept; bring it in again', 'no_original');
  if (isModelInUse(projectId)) return MODEL_IN_USE;
  const { unit, up } = before.read_as ?? METRES_Y_UP;
  const read = await attendJob('import', projectId, () => importModel({ files, unit, up, fineness, signal }));
  if (!read.ok) return read;
  const { sha256, added } = await put('models', read.value.glb);
  addStorage('models', added);
  const report: ImportReport = { ...read.value.report, compared: before.compared };
  return database()
    .transaction((): Result<null> => {
      if (latestRevision(projectId)?.id !== revision.id)
        return refused('a newer revision came in meanwhile; set the fineness again', 'busy');
      replaceModel(revision.id, sha256, JSON.stringify(report));
      touchProject(projectId);
      return ok(null);
    })
    .immediate();
}
