/** Everything a workspace shows: a project with one picture in hand. */
import type {
  CapturedSunDto,
  OpenPictureDto,
  PhotometricDto,
  ProofDto,
  WorkspaceChangesDto,
  WorkspaceDto
} from '../../contracts/dto';
import { PROOFS_PAGE } from '../../contracts/paging';
import type { Brief } from '../../core/brief/brief';
import { readPart } from '../../core/brief/kept-part';
import type { ImportReport } from '../../formats/model/import-report';
import { freeBytes } from '../files/free-bytes';
import { listBackdrops } from '../store/backdrops';
import { listKept } from '../store/kept';
import { listPhotometric } from '../store/photometric';
import { listPressProfiles } from '../store/press-profiles';
import { sqliteQueue as queue } from '../store/job-queue';
import { listFurtherModels } from '../store/model-files';
import { findPicture, listPictures, listPicturesSince } from '../store/pictures';
import { findProject, latestRevision, listCaptured, listRevisions, listViewpoints } from '../store/projects';
import { countProofsOf, findProof, listProofsOf, listProofsSince } from '../store/proofs';
import { stampOf } from '../store/stamps';
import { machineOf, queueAhead } from './queue-ahead';
import { withAspects } from './list-model-parts';
import { pictureDto, pictureItemDto, proofDto } from './to-dto';

/** Of the revisions before the newest one. */
const EARLIER_SHOWN = 20;

/** With the picture that is asked for in hand, or the first when there is none of that id. Null: no such project. */
export function viewWorkspace(projectId: string, pictureId: string | null = null): WorkspaceDto | null {
  const project = findProject(projectId);
  const revision = project && latestRevision(project.id);
  if (!project || !revision) return null;
  const pictures = listPictures(project.id);
  const inHand = pictures.find((p) => p.id === pictureId) ?? pictures[0];
  if (!inHand) return null;
  return {
    stamp: stampOf(project.id),
    project: { id: project.id, name: project.name, client: project.client, kind: project.kind },
    revision: {
      id: revision.id,
      number: revision.number,
      glb_sha256: revision.glb_sha256,
      report: withAspects(JSON.parse(revision.report_json) as ImportReport, revision.glb_sha256)
    },
    earlier: listRevisions(project.id)
      .slice(1, EARLIER_SHOWN + 1)
      .map(({ id, number, source_name, created_at_ms }) => ({ id, number, source: source_name, created_at_ms })),
    pictures: pictures.map(pictureItemDto),
    opened: viewPicture(inHand.id)!,
    further: listFurtherModels(project.id).map(({ glb_sha256, name, height_m }) => ({
      model: glb_sha256,
      name,
      height_m
    })),
    viewpoints: listViewpoints(project.id).map((v) => ({
      id: v.id,
      name: v.name,
      viewpoint: JSON.parse(v.viewpoint_json) as Brief['viewpoint']
    })),
    captured: listCaptured().map(({ sha256, name, width_px, height_px, sun_json }) => ({
      sha256,
      name,
      width_px,
      height_px,
      sun: sun_json ? (JSON.parse(sun_json) as CapturedSunDto | null) : null
    })),
    press: listPressProfiles().map(({ sha256, name }) => ({ sha256, name })),
    photometric: listPhotometric().map(({ sha256, name, lumen, watts, curve_json }) => ({
      sha256,
      name,
      lumen,
      watts,
      curve: JSON.parse(curve_json) as PhotometricDto['curve']
    })),
    backdrops: listBackdrops().map(({ sha256, name, width_px, height_px, purpose }) => ({
      sha256,
      name,
      width_px,
      height_px,
      purpose
    })),
    kept: listKept(project.id).map(({ id, kind, name, part_json }) => ({ id, kind, name, part: readPart(part_json) })),
    ...machineState(project.id)
  };
}

/** A picture with its newest proofs; null when it is not there. */
export function viewPicture(pictureId: string): OpenPictureDto | null {
  const row = findPicture(pictureId);
  if (!row) return null;
  const stamp = stampOf(row.project_id);
  return { stamp, picture: pictureDto(row), ...viewProofs(row.id, Number.MAX_SAFE_INTEGER) };
}

/** The proofs of a picture below a number, newest first, and how many are older still. */
export function viewProofs(pictureId: string, before: number): { proofs: ProofDto[]; earlier: number } {
  const rows = listProofsOf(pictureId, before, PROOFS_PAGE);
  return { proofs: rows.map(proofDto), earlier: countProofsOf(pictureId, rows.at(-1)?.number ?? 0) };
}

const isThere = (row: { removed_at_ms: number | null }): boolean => row.removed_at_ms === null;

/**
 * What changed in a project after a change that the asker has seen, with more of the picture in hand; null when there is
 * no such project.
 */
export function viewChanges(projectId: string, pictureId: string, since: number): WorkspaceChangesDto | null {
  if (!findProject(projectId)) return null;
  const stamp = stampOf(projectId);
  const pictures = listPicturesSince(projectId, since);
  const picture = pictures.find((p) => p.id === pictureId);
  const proofs = listProofsSince(pictureId, since);
  return {
    stamp,
    model: latestRevision(projectId)!.glb_sha256,
    opened: pictureId,
    pictures: pictures.filter(isThere).map(pictureItemDto),
    removedPictures: pictures.filter((p) => !isThere(p)).map((p) => p.id),
    picture: picture && isThere(picture) ? pictureDto(picture) : null,
    proofs: proofs.filter(isThere).map(proofDto),
    removed: proofs.filter((p) => !isThere(p)).map((p) => p.id),
    ...machineState(projectId)
  };
}

const machineState = (projectId: string): Pick<WorkspaceDto, 'machine' | 'ahead' | 'free_bytes' | 'rendering'> => ({
  machine: machineOf(projectId),
  ahead: queueAhead(),
  free_bytes: freeBytes(),
  rendering: whatRenders()
});

/** What renders on this machine now, of whatever project: "proof 3 of Reading room". */
function whatRenders(): string | null {
  const job = queue.open('render').find(({ state }) => state.name === 'running');
  const proof = job && findProof(job.proof!);
  return proof ? `proof ${proof.number} of ${findPicture(proof.picture_id)?.name ?? 'another picture'}` : null;
}
