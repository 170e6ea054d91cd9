/**
 * A project from uploaded model files: imports them, keeps the revision, makes the first picture. Nothing is kept of a
 * refused model.
 */
import type { Brief } from '../../core/brief/brief';
import type { LengthUnit } from '../../core/units/units';
import { contentPath, has, put } from '../files/content-store';
import { database } from '../store/database';
import { insertPicture } from '../store/pictures';
import { insertProject, insertRevision } from '../store/projects';
import { addStorage } from '../store/storage';
import { firstBrief } from './default-briefs';
import { type Result, ok, refused } from '../../core/result/result';
import { newId } from './identify';
import { attendJob } from './attend-job';
import { importModel } from './import-model';

export interface NewProject {
  files: { upload: string; name: string }[];
  unit: LengthUnit;
  up: 'y' | 'z';
  /** Default: the file's name. */
  name?: string;
  client?: string;
  kind?: string;
  /** Default: one picture of the first camera. */
  pictures?: { name: string; brief: Brief }[];
}

export async function createProject(input: NewProject): Promise<Result<{ project: string; pictures: string[] }>> {
  if (input.files.length === 0) return refused('choose a model file to bring in');
  for (const file of input.files)
    if (!(await has('incoming', file.upload)))
      return refused(`"${file.name}" did not arrive whole; bring it in again`, 'missing_upload');
  const files = input.files.map(({ upload, name }) => ({ path: contentPath('incoming', upload), name }));
  const imported = await attendJob('import', null, () => importModel({ files, unit: input.unit, up: input.up }));
  if (!imported.ok) return imported;
  const { glb, report } = imported.value;
  const { sha256, added } = await put('models', glb);
  addStorage('models', added);
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
      id: newId(),
      project_id: project,
      number: 1,
      glb_sha256: sha256,
      source_name: report.source,
      report_json: JSON.stringify(report),
      created_at_ms: now
    });
    pictures.forEach((picture, i) => {
      insertPicture(
        { id: ids[i]!, project_id: project, position: i, name: picture.name, step: 0, created_at_ms: now },
        JSON.stringify(picture.brief)
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
