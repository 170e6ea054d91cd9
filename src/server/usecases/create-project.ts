/**
 * A project from uploaded model files: imports them, keeps the revision, makes the first picture. Nothing is kept of a
 * refused model.
 */
import { type Brief, canonicalJson } from '../../core/brief/brief';
import type { Recognition } from '../../formats/model/recognition';
import type { LengthUnit } from '../../core/units/units';
import { database } from '../store/database';
import { insertOriginal } from '../store/model-files';
import { insertPicture } from '../store/pictures';
import { insertProject, insertRevision } from '../store/projects';
import { firstBrief } from './default-briefs';
import { type Result, ok } from '../../core/result/result';
import { newId } from './identify';
import { attendJob } from './attend-job';
import { findUploads, type Upload } from './find-uploads';
import { importModel, recogniseModel } from './import-model';
import { keepOriginals } from './read-model-again';
import { storeModel } from './store-model';

export interface NewProject {
  files: Upload[];
  /** Null: what the file's format states. */
  unit: LengthUnit | null;
  up: 'y' | 'z' | null;
  /** Default: the file's name. */
  name?: string;
  client?: string;
  kind?: string;
  /** Default: one picture of the first camera. */
  pictures?: { name: string; brief: Brief }[];
}

/** What uploaded files are, and what has to be asked before they become a project. */
export async function recogniseUploads(uploads: Upload[], signal?: AbortSignal): Promise<Result<Recognition>> {
  const files = await findUploads(uploads);
  return files.ok ? attendJob('import', null, () => recogniseModel(files.value, signal)) : files;
}

export async function createProject(
  input: NewProject,
  signal?: AbortSignal
): Promise<Result<{ project: string; pictures: string[] }>> {
  const found = await findUploads(input.files);
  if (!found.ok) return found;
  const { unit, up } = input;
  const imported = await attendJob('import', null, () => importModel({ files: found.value, unit, up, signal }));
  if (!imported.ok) return imported;
  const { report } = imported.value;
  const stored = await storeModel(imported.value);
  const originals = await keepOriginals(found.value, report);
  const revision = newId();
  const now = Date.now();
  const project = newId();
  const pictures = input.pictures ?? [{ name: report.cameras[0]?.name ?? 'First view', brief: firstBrief(report) }];
  const ids = pictures.map(newId);
  database().transaction(() => {
    insertProject({
      id: project,
      name: input.name ?? projectName(report.source),
      client: input.client ?? '',
      kind: input.kind ?? '',
      created_at_ms: now
    });
    insertRevision({
      id: revision,
      project_id: project,
      number: 1,
      ...stored,
      source_name: report.source,
      report_json: JSON.stringify(report),
      created_at_ms: now
    });
    for (const original of originals) insertOriginal(revision, original);
    pictures.forEach((picture, i) => {
      insertPicture(
        { id: ids[i]!, project_id: project, position: i, name: picture.name, step: 0, created_at_ms: now },
        canonicalJson(picture.brief)
      );
    });
  })();
  return ok({ project, pictures: ids });
}

/** "tower_section-v2.glb" is the project "Tower section v2". */
function projectName(file: string): string {
  const plain = file
    .slice(file.lastIndexOf('/') + 1)
    .replace(/\.[A-Za-z0-9]+$/, '')
    .replace(/[_-]+/g, ' ')
    .trim()
    .slice(0, 80);
  return plain ? plain[0]!.toUpperCase() + plain.slice(1) : 'New project';
}
