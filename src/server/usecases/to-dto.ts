/** Rows to DTOs. */
import type { PictureDto, ProofDto, ProofStateDto } from '../../contracts/dto';
import { readBrief } from '../../core/brief/read-brief';
import { briefAt, lastStep, type PictureRow } from '../store/pictures';
import { findRevision } from '../store/projects';
import { listProofs, type ProofRow } from '../store/proofs';

export function proofDto(row: ProofRow): ProofDto {
  return {
    id: row.id,
    pictureId: row.picture_id,
    number: row.number,
    state: row.state as ProofStateDto,
    brief: readBrief(row.brief_json),
    width_px: row.width_px,
    height_px: row.height_px,
    share: row.share,
    samples: row.samples,
    grain: row.grain,
    seconds: row.seconds,
    seconds_left: row.seconds_left,
    ev100: row.ev100,
    picture_count: row.picture_count,
    error: row.error,
    clean_share: row.clean_share,
    clean_grain: row.clean_grain,
    clean_note: row.clean_note,
    limited_share: row.limited_share,
    file_bytes: row.file_bytes_json ? (JSON.parse(row.file_bytes_json) as ProofDto['file_bytes']) : null,
    revision: findRevision(row.revision_id)?.number ?? 0,
    stopping: row.stop_asked !== null,
    created_at_ms: row.created_at_ms,
    ended_at_ms: row.ended_at_ms
  };
}

export function pictureDto(row: PictureRow): PictureDto {
  const lead = listProofs(row.id).find((p) => p.picture_count > 0 && readBrief(p.brief_json).patch === null);
  return {
    id: row.id,
    name: row.name,
    brief: readBrief(briefAt(row.id, row.step)!),
    lead: lead ? { proof: lead.id, count: lead.picture_count } : null,
    canUndo: row.step > 0,
    canRedo: row.step < lastStep(row.id),
    changes: row.changes
  };
}
