/** The desk: all projects, what renders, what is stored. */
import type { DeskDto, DeskProjectDto } from '../../contracts/dto';
import { DESK_PAGE } from '../../contracts/paging';
import { readBrief } from '../../core/brief/read-brief';
import { QUALITY_STEPS } from '../../core/catalogue/quality';
import { formatNames, modelExtensions } from '../../formats/model';
import { freeBytes } from '../files/free-bytes';
import { sqliteQueue as queue } from '../store/job-queue';
import { findPicture, listPictures } from '../store/pictures';
import { countProjects, latestRevision, listProjects, type ProjectRow } from '../store/projects';
import { filmTotals, findProof, lastEndedProof, leadProof } from '../store/proofs';
import { stampOf } from '../store/stamps';
import { storageOf } from '../store/storage';
import { viewRemoved } from './remove';
import { briefOf, proofDto } from './to-dto';

/** Grows with every change that the desk shows. */
export const deskStamp = (): number => stampOf('desk');

export function viewDesk(limit = DESK_PAGE): DeskDto {
  const stamp = deskStamp();
  const rows = listProjects(limit);
  const open = queue.open().filter((job) => job.proof !== null);
  const running = open.find((job) => job.state.name === 'running');
  const proof = running && findProof(running.proof!);
  const picture = proof && findPicture(proof.picture_id);
  const films = filmTotals();
  return {
    stamp,
    formats: { text: formatNames(), extensions: modelExtensions() },
    client: rows[0]?.client ?? '',
    projects: rows.flatMap((row) => deskProject(row) ?? []),
    count: countProjects(),
    running: proof && picture ? { ...proofDto(proof), picture: picture.name, project: picture.project_id } : null,
    waiting: open.length - (running ? 1 : 0),
    removed: viewRemoved(),
    storage: {
      films: films.films,
      films_bytes: films.bytes,
      models_bytes: storageOf('models'),
      packs_bytes: storageOf('packs'),
      free_bytes: freeBytes()
    }
  };
}

function deskProject(project: ProjectRow): DeskProjectDto | null {
  const pictures = listPictures(project.id);
  const revision = latestRevision(project.id);
  const first = pictures[0];
  if (!first || !revision) return null;
  let lead: ReturnType<typeof leadProof> = null;
  for (const picture of pictures) {
    lead = leadProof(picture.id);
    if (lead) break;
  }
  const last = lastEndedProof(project.id);
  const job = queue.open().find((open) => open.project === project.id && open.state.name === 'running' && open.proof);
  const running = job && findProof(job.proof!);
  return {
    id: project.id,
    name: project.name,
    kind: project.kind,
    pictures: pictures.length,
    revision: revision.number,
    size: briefOf(first).size,
    first: { id: first.id, changes: first.changes },
    lead: lead && {
      proof: lead.id,
      count: lead.picture_count,
      width_px: lead.width_px,
      height_px: lead.height_px
    },
    last_proof: last && {
      quality: QUALITY_STEPS[readBrief(last.brief_json).quality.step].name,
      ended_at_ms: last.ended_at_ms
    },
    running: running
      ? { share: running.share, seconds_left: job.state.name === 'running' ? job.state.secondsLeft : null }
      : null
  };
}
