/**
 * Corrects the unit or the upright axis that a model was read as. The revision stays; its model, and all that stands in the
 * model’s metres in pictures and viewpoints, their history with them, take the true size. A picture that nobody has
 * touched begins anew, because its light and view were chosen by the wrong size. Proofs stay, as of another model.
 */
import type { Brief } from '../../core/brief/brief';
import { canonicalJson } from '../../core/brief/canonical-json';
import { readBrief } from '../../core/brief/read-brief';
import { rescaleBrief, rescaleViewpoint } from '../../core/brief/rescale';
import { ok, refused, type Result } from '../../core/result/result';
import type { ImportReport } from '../../formats/model/import-report';
import { METRES_Y_UP, type ReadAs } from '../../core/units/read-as';
import { rescalingOf } from '../../formats/model/rescaling';
import { contentPath } from '../files/content-store';
import { database } from '../store/database';
import { listPictures, listSteps, rewriteStep, setStep } from '../store/pictures';
import {
  findProject,
  latestRevision,
  listViewpoints,
  replaceModel,
  saveViewpoint,
  touchProject
} from '../store/projects';
import { listProofsOf } from '../store/proofs';
import { attendJob } from './attend-job';
import { firstBrief } from './default-briefs';
import { importModel } from './import-model';
import { isModelInUse, MODEL_IN_USE } from './model-in-use';
import { storeModel } from './store-model';

export async function rescaleModel(projectId: string, to: ReadAs, signal?: AbortSignal): Promise<Result<null>> {
  const revision = findProject(projectId) && latestRevision(projectId);
  if (!revision) return refused('this project is no longer there; reload the page', 'gone');
  const before = JSON.parse(revision.report_json) as ImportReport;
  const from = before.read_as ?? METRES_Y_UP;
  if (from.unit === to.unit && from.up === to.up) return ok(null);
  if (isModelInUse(projectId)) return MODEL_IN_USE;
  const files = [{ name: 'model.glb', path: contentPath('models', revision.glb_sha256) }];
  const read = await attendJob('import', projectId, () => importModel({ files, ...to, from, signal }));
  if (!read.ok) return read;
  const { glb_sha256 } = await storeModel(read.value);
  // what it was before its repairs is in the file's own unit, and serves for every other
  const { unrepaired_sha256 } = revision;
  // what the file itself was found to have is said once, by its first reading
  const { source, format, changed, missing, site, fineness, health } = before;
  const report: ImportReport = {
    ...read.value.report,
    source,
    format,
    changed,
    missing,
    ...(site ? { site } : {}),
    ...(fineness ? { fineness } : {}),
    ...(health ? { health } : {})
  };
  const by = rescalingOf({ ...to, from });
  database()
    .transaction(() => {
      replaceModel(revision.id, { glb_sha256, unrepaired_sha256 }, JSON.stringify(report));
      const untouched = new Set(
        listPictures(projectId)
          .filter(isUntouched)
          .map((p) => p.id)
      );
      for (const { picture_id, step, brief_json } of listSteps(projectId)) {
        const brief: Brief = untouched.has(picture_id) ? firstBrief(report) : rescaleBrief(readBrief(brief_json), by);
        rewriteStep(picture_id, step, canonicalJson(brief));
      }
      for (const { id, viewpoint_json } of listViewpoints(projectId))
        saveViewpoint(id, JSON.stringify(rescaleViewpoint(JSON.parse(viewpoint_json) as Brief['viewpoint'], by)));
      for (const { id, step } of listPictures(projectId)) setStep(id, step);
      touchProject(projectId);
    })
    .immediate();
  return ok(null);
}

const isUntouched = ({ id, step }: { id: string; step: number }): boolean =>
  step === 0 && listProofsOf(id, Number.MAX_SAFE_INTEGER, 1).length === 0;
