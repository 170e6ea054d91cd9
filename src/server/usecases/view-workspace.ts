/** Everything a workspace shows. */
import type { CapturedSunDto, PhotometricDto, WorkspaceDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import { readPart } from '../../core/brief/kept-part';
import type { ImportReport } from '../../formats/import-report';
import { config } from '../config';
import { cleanSpeed, ratiosOf } from '../store/forecasts';
import { listBackdrops } from '../store/backdrops';
import { listKept } from '../store/kept';
import { listPhotometric } from '../store/photometric';
import { findPicture, listPictures } from '../store/pictures';
import { findProject, latestRevision, listCaptured, listViewpoints } from '../store/projects';
import { listProofs, openProofs } from '../store/proofs';
import { pictureDto, proofDto } from './to-dto';

export function viewWorkspace(projectId: string): WorkspaceDto | null {
  const project = findProject(projectId);
  const revision = project && latestRevision(project.id);
  if (!project || !revision) return null;
  const pictures = listPictures(project.id);
  return {
    project: { id: project.id, name: project.name, client: project.client, kind: project.kind },
    revision: {
      id: revision.id,
      number: revision.number,
      glb_sha256: revision.glb_sha256,
      report: JSON.parse(revision.report_json) as ImportReport
    },
    pictures: pictures.map(pictureDto),
    proofs: pictures
      .flatMap((p) => listProofs(p.id))
      .sort((a, b) => b.created_at_ms - a.created_at_ms || b.number - a.number)
      .map(proofDto),
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
    photometric: listPhotometric().map(({ sha256, name, lumen, watts, curve_json }) => ({
      sha256,
      name,
      lumen,
      watts,
      curve: JSON.parse(curve_json) as PhotometricDto['curve']
    })),
    backdrops: listBackdrops().map(({ sha256, name, width_px, height_px }) => ({ sha256, name, width_px, height_px })),
    kept: listKept(project.id).map(({ id, kind, name, part_json }) => ({ id, kind, name, part: readPart(part_json) })),
    machine: { threads: config.threads, cleanSecondsPerMegapixel: cleanSpeed(), ratios: ratiosOf(project.id) },
    rendering: whatRenders()
  };
}

function whatRenders(): string | null {
  const running = openProofs().find((p) => p.state === 'running');
  return running ? `proof ${running.number} of ${findPicture(running.picture_id)?.name ?? 'another picture'}` : null;
}
