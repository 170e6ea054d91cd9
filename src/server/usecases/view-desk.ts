/** The desk: all projects, what renders, what is kept. */
import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { DeskDto, DeskProjectDto } from '../../contracts/dto';
import { readBrief } from '../../core/brief/read-brief';
import { QUALITY_STEPS } from '../../core/catalogue/quality';
import { config } from '../config';
import { freeBytes } from '../files/free-bytes';
import { briefAt, findPicture, listPictures } from '../store/pictures';
import { findProject, latestRevision, listProjects } from '../store/projects';
import { listProofs, openProofs, proofCounts } from '../store/proofs';
import { proofDto } from './to-dto';

export async function viewDesk(): Promise<DeskDto> {
  const projects = listProjects().flatMap((project): DeskProjectDto[] => {
    const pictures = listPictures(project.id);
    const revision = latestRevision(project.id);
    const first = pictures[0];
    if (!first || !revision) return [];
    const proofs = pictures.flatMap((p) => listProofs(p.id));
    const lead =
      proofs.find((p) => p.picture_id === first.id && p.picture_count > 0 && p.state !== 'failed') ??
      proofs.find((p) => p.picture_count > 0);
    const last = proofs
      .filter((p) => p.ended_at_ms !== null && (p.state === 'done' || p.state === 'kept'))
      .sort((a, b) => b.ended_at_ms! - a.ended_at_ms!)[0];
    const running = proofs.find((p) => p.state === 'running');
    return [
      {
        id: project.id,
        name: project.name,
        kind: project.kind,
        pictures: pictures.length,
        revision: revision.number,
        first_picture: first.id,
        first_brief: readBrief(briefAt(first.id, first.step)!),
        lead: lead
          ? { proof: lead.id, count: lead.picture_count, width_px: lead.width_px, height_px: lead.height_px }
          : null,
        last_proof: last
          ? { quality: QUALITY_STEPS[readBrief(last.brief_json).quality.step].name, ended_at_ms: last.ended_at_ms! }
          : null,
        running: running ? { share: running.share, seconds_left: running.seconds_left } : null
      }
    ];
  });
  const open = openProofs();
  const running = open.find((p) => p.state === 'running');
  const picture = running && findPicture(running.picture_id);
  return {
    client: listProjects()[0]?.client ?? '',
    projects,
    running:
      running && picture
        ? { ...proofDto(running), picture: picture.name, project: findProject(picture.project_id)!.id }
        : null,
    waiting: open.length - (running ? 1 : 0),
    kept: {
      films: proofCounts().films,
      films_bytes: await sizeOf(join(config.dataDir, 'films')),
      models_bytes: await sizeOf(join(config.dataDir, 'models')),
      packs_bytes: await sizeOf(join(config.dataDir, 'packs')),
      free_bytes: freeBytes()
    }
  };
}

async function sizeOf(folder: string): Promise<number> {
  const entries = await readdir(folder, { withFileTypes: true, recursive: true }).catch(() => []);
  let sum = 0;
  for (const entry of entries) {
    if (!entry.isFile()) continue;
    // a film's unused slots are holes: count blocks, not length
    const s = await stat(join(entry.parentPath, entry.name)).catch(() => null);
    sum += s ? s.blocks * 512 : 0;
  }
  return sum;
}
