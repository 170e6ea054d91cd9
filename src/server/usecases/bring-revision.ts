/**
 * A newer file of a project's model, as its next revision: pictures, viewpoints, lamps and what was set aside carry over by
 * their names. A camera that is no longer in the file stays as numbers, so that no picture loses its view. Going back makes
 * an earlier revision the newest again.
 */
import type { Brief } from '../../core/brief/brief';
import { canonicalJson } from '../../core/brief/canonical-json';
import { readBrief } from '../../core/brief/read-brief';
import { repairsAfter } from '../../core/scene/health';
import { followName, followPart, followParts } from '../../core/scene/follow-part';
import { resolveViewpoint } from '../../core/recipe/viewpoint';
import { type Result, ok, refused } from '../../core/result/result';
import { METRES_Y_UP } from '../../core/units/read-as';
import { type ComparedReport, type ImportReport, RENAMED } from '../../formats/model/import-report';
import { runTask } from '../jobs/run-task';
import { database } from '../store/database';
import { insertOriginal, listOriginals, type OriginalFile } from '../store/model-files';
import { listPictures, listSteps, rewriteStep, setStep } from '../store/pictures';
import {
  findProject,
  findProjectsNamed,
  findRevision,
  insertRevision,
  latestRevision,
  type RevisionRow,
  touchProject
} from '../store/projects';
import { attendJob } from './attend-job';
import { findUploads, type Upload } from './find-uploads';
import { newId } from './identify';
import { type FileOnDisk, importModel } from './import-model';
import { listModelParts } from './list-model-parts';
import { keepOriginals } from './read-model-again';
import { picturesThatSee } from './pictures-that-see';
import { storeModel } from './store-model';

const endingOf = (name: string): string => name.slice(name.lastIndexOf('.') + 1).toLowerCase();
const gone = () => refused('this project is no longer there; reload the page', 'gone');
/** Of a list of names, as many are kept; the rest is counted. */
const NAMES_KEPT = 60;

/** `same`: the file holds the model that is there; nothing was made of it. */
export async function bringRevision(
  projectId: string,
  uploads: Upload[],
  signal?: AbortSignal
): Promise<Result<{ same: boolean }>> {
  if (!findProject(projectId)) return gone();
  const files = await findUploads(uploads);
  return files.ok ? bringModelFiles(projectId, files.value, signal) : files;
}

/** The same of files that lie on this machine. */
export async function bringModelFiles(
  projectId: string,
  files: FileOnDisk[],
  signal?: AbortSignal
): Promise<Result<{ same: boolean }>> {
  const before = findProject(projectId) && latestRevision(projectId);
  if (!before) return gone();
  // a file of the same kind is read as the one before, whatever had to be said of that
  const alike = files.some(({ name }) => endingOf(name) === endingOf(before.source_name));
  const asBefore = (JSON.parse(before.report_json) as ImportReport).read_as ?? METRES_Y_UP;
  const { unit, up } = alike ? asBefore : { unit: null, up: null };
  const { fineness, health } = JSON.parse(before.report_json) as ImportReport;
  const repairs = repairsAfter(health);
  return attendJob('import', projectId, async () => {
    const read = await importModel({ files, unit, up, repairs, signal, ...(fineness ? { fineness } : {}) });
    if (!read.ok) return read;
    const stored = await storeModel(read.value);
    const sha256 = stored.glb_sha256;
    if (sha256 === before.glb_sha256) return ok({ same: true });
    const compared = await runTask('compare', { before: before.glb_sha256, after: sha256 });
    if (!compared.ok) return compared;
    const { same, paths, ...lists } = compared.value;
    const parts = await listModelParts(sha256);
    if (!parts.ok) return parts;
    const partsBefore = await listModelParts(before.glb_sha256);
    if (!partsBefore.ok) return partsBefore;
    const { cameras } = JSON.parse(before.report_json) as ImportReport;
    const pictures = picturesThatSee(
      projectId,
      lists,
      { cameras, parts: partsBefore.value },
      { cameras: read.value.report.cameras, parts: parts.value }
    );
    const report: ImportReport = {
      ...read.value.report,
      compared: {
        with: before.number,
        same,
        moved: shortened(lists.moved),
        changed: shortened(lists.changed),
        added: shortened(lists.added),
        removed: shortened(lists.removed),
        renamed: shortened(lists.renamed.map(({ from, to }) => from + RENAMED + to)),
        pictures
      }
    };
    const there = new Set(parts.value.map((part) => part.path));
    const originals = await keepOriginals(files, report);
    return addRevision(projectId, before, stored, report, originals, {
      part: (part) => followPart(part, paths, there),
      name: (name) => followName(name, paths)
    });
  });
}

/** Where a part is now, by its path; what it is called. */
interface Follow {
  part: (path: string) => string;
  name: (name: string) => string;
}

/** Makes an earlier revision the newest again. */
export function restoreRevision(projectId: string, revisionId: string): Result<{ same: boolean }> {
  const before = findProject(projectId) && latestRevision(projectId);
  const earlier = findRevision(revisionId);
  if (!before || earlier?.project_id !== projectId) return gone();
  if (earlier.glb_sha256 === before.glb_sha256) return ok({ same: true });
  const report = JSON.parse(earlier.report_json) as ImportReport;
  return addRevision(projectId, before, earlier, { ...report, compared: undefined }, listOriginals(earlier.id));
}

function addRevision(
  projectId: string,
  before: RevisionRow,
  { glb_sha256, unrepaired_sha256 }: Pick<RevisionRow, 'glb_sha256' | 'unrepaired_sha256'>,
  report: ImportReport,
  originals: readonly OriginalFile[],
  follow: Follow = { part: (part) => part, name: (name) => name }
): Result<{ same: boolean }> {
  database()
    .transaction(() => {
      const id = newId();
      insertRevision({
        id,
        project_id: projectId,
        number: before.number + 1,
        glb_sha256,
        unrepaired_sha256,
        source_name: report.source,
        report_json: JSON.stringify(report),
        created_at_ms: Date.now()
      });
      for (const original of originals) insertOriginal(id, original);
      carryOver(projectId, (JSON.parse(before.report_json) as ImportReport).cameras, report.cameras, follow);
      touchProject(projectId);
    })
    .immediate();
  return ok({ same: false });
}

/** Views from cameras that are gone stay, as numbers; parts that a brief names are found again under their new paths. */
function carryOver(
  projectId: string,
  were: ImportReport['cameras'],
  are: ImportReport['cameras'],
  follow: Follow
): void {
  const named = new Set(are.map((camera) => camera.name));
  for (const { picture_id, step, brief_json } of listSteps(projectId)) {
    const brief = readBrief(brief_json);
    const { viewpoint } = brief;
    const lost =
      'camera' in viewpoint && !named.has(viewpoint.camera) && were.some((camera) => camera.name === viewpoint.camera);
    const masks = brief.finish.masks.map((mask) =>
      mask.of === 'part' ? { ...mask, name: follow.name(mask.name) } : mask
    );
    const next: Brief = {
      ...followParts(brief, follow.part),
      finish: { ...brief.finish, masks },
      ...(lost ? { viewpoint: resolveViewpoint({ cameras: were }, brief) } : {})
    };
    const text = canonicalJson(next);
    if (lost || text !== canonicalJson(brief)) rewriteStep(picture_id, step, text);
  }
  for (const { id, step } of listPictures(projectId)) setStep(id, step);
}

const shortened = (names: readonly string[]): ComparedReport['added'] => ({
  count: names.length,
  names: names.slice(0, NAMES_KEPT)
});

/** Ids of the projects of a name. */
export const projectsNamed = (name: string): string[] => findProjectsNamed(name).map(({ id }) => id);
