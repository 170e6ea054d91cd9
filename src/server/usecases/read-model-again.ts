/**
 * The newest revision read anew from what was kept of it: meshed finer or coarser, repaired otherwise, with files that it
 * missed. Pictures keep all that they have; proofs stay, as of another model.
 */
import { createReadStream } from 'node:fs';
import { type Finding, type Repair, repairsAfter } from '../../core/scene/health';
import { refused, type Result, ok } from '../../core/result/result';
import { type Fineness, METRES_Y_UP } from '../../core/units/read-as';
import type { ImportReport } from '../../formats/model/import-report';
import { contentPath, put } from '../files/content-store';
import { database } from '../store/database';
import { insertOriginal, listOriginals, type OriginalFile } from '../store/model-files';
import { findProject, latestRevision, replaceModel, type RevisionRow, touchProject } from '../store/projects';
import { attendJob } from './attend-job';
import { findUploads, type Upload } from './find-uploads';
import { type FileOnDisk, importModel } from './import-model';
import { isModelInUse, MODEL_IN_USE } from './model-in-use';
import { storeModel } from './store-model';

const missesFiles = ({ health }: ImportReport): boolean =>
  health?.some((finding) => finding.kind === 'pictures') ?? false;

/** Copies of the files that a report was made of; none where they are not wanted again. */
export async function keepOriginals(files: readonly FileOnDisk[], report: ImportReport): Promise<OriginalFile[]> {
  if (!report.fineness && !missesFiles(report)) return [];
  const kept: OriginalFile[] = [];
  for (const { name, path } of files)
    kept.push({ name, sha256: (await put('originals', createReadStream(path))).sha256 });
  return kept;
}

/** Meshes the solids of the newest revision anew. */
export const remeshModel = (projectId: string, fineness: Fineness, signal?: AbortSignal): Promise<Result<null>> =>
  readAgain(projectId, signal, ({ revision, report }) => {
    if (report.fineness === fineness) return ok(null);
    const files = originalsOf(revision);
    if (files.length === 0)
      return refused('the file that this model was meshed from was not kept; bring it in again', 'no_original');
    return ok({ files, fineness });
  });

/** Does these repairs and undoes all others. */
export const repairModel = (
  projectId: string,
  repairs: readonly Repair[],
  signal?: AbortSignal
): Promise<Result<null>> =>
  readAgain(projectId, signal, ({ revision, report }) => {
    const wanted = new Set(repairs);
    if ((report.health ?? []).every((f: Finding) => f.repaired === wanted.has(f.kind as Repair))) return ok(null);
    if (revision.unrepaired_sha256 === null)
      return refused('what this model was before its repairs was not kept; bring it in again', 'no_original');
    const path = contentPath('originals', revision.unrepaired_sha256);
    return ok({ files: [{ name: 'model.glb', path }], repairs });
  });

/** Adds files that the model asks for, as its pictures. */
export async function completeModel(projectId: string, uploads: Upload[], signal?: AbortSignal): Promise<Result<null>> {
  const found = await findUploads(uploads);
  if (!found.ok) return found;
  return readAgain(projectId, signal, ({ revision }) => {
    const files = originalsOf(revision);
    if (files.length === 0)
      return refused('the files that this model came in with were not kept; bring all of them in again', 'no_original');
    // a file that came before under the same name gives way
    const names = new Set(found.value.map((file) => file.name));
    return ok({ files: [...files.filter((file) => !names.has(file.name)), ...found.value], added: found.value });
  });
}

const originalsOf = (revision: RevisionRow): FileOnDisk[] =>
  listOriginals(revision.id).map(({ name, sha256 }) => ({ name, path: contentPath('originals', sha256) }));

interface Again {
  files: FileOnDisk[];
  fineness?: Fineness;
  repairs?: readonly Repair[];
  /** Of the files, those that are new. */
  added?: readonly FileOnDisk[];
}

async function readAgain(
  projectId: string,
  signal: AbortSignal | undefined,
  decide: (now: { revision: RevisionRow; report: ImportReport }) => Result<Again | null>
): Promise<Result<null>> {
  const revision = findProject(projectId) && latestRevision(projectId);
  if (!revision) return refused('this project is no longer there; reload the page', 'gone');
  const before = JSON.parse(revision.report_json) as ImportReport;
  const again = decide({ revision, report: before });
  if (!again.ok) return again;
  if (again.value === null) return ok(null);
  if (isModelInUse(projectId)) return MODEL_IN_USE;
  const { files, fineness = before.fineness, repairs = repairsAfter(before.health), added = [] } = again.value;
  const { unit, up } = before.read_as ?? METRES_Y_UP;
  const read = await attendJob('import', projectId, () =>
    importModel({ files, unit, up, repairs, signal, ...(fineness ? { fineness } : {}) })
  );
  if (!read.ok) return read;
  const stored = await storeModel(read.value);
  const kept: OriginalFile[] = [];
  for (const { name, path } of added)
    kept.push({ name, sha256: (await put('originals', createReadStream(path))).sha256 });
  const report = reportAfter(before, read.value.report, again.value);
  return database()
    .transaction((): Result<null> => {
      if (latestRevision(projectId)?.id !== revision.id)
        return refused('a newer revision came in meanwhile; try it again', 'busy');
      replaceModel(revision.id, stored, JSON.stringify(report));
      for (const file of kept) insertOriginal(revision.id, file);
      touchProject(projectId);
      return ok(null);
    })
    .immediate();
}

/** What the file itself was found to have is said by its own reading, and not by that of the model made of it. */
function reportAfter(before: ImportReport, after: ImportReport, { repairs }: Again): ImportReport {
  const { source, format, changed, missing, site, fineness, compared } = before;
  if (!repairs) return { ...after, compared };
  const pictures = before.health?.filter((finding) => finding.kind === 'pictures') ?? [];
  return {
    ...after,
    source,
    format,
    changed,
    missing,
    compared,
    health: [...(after.health ?? []), ...pictures],
    ...(site ? { site } : {}),
    ...(fineness ? { fineness } : {})
  };
}
