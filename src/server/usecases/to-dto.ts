/** Rows to DTOs. */
import type { PictureDto, PictureItemDto, ProofDto, ProofStateDto } from '../../contracts/dto';
import { filmKey } from '../render/film-key';
import type { Brief } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { untilFinished } from '../../core/forecast/ahead';
import type { Job, RunningState } from '../../core/job/job';
import { denoiseSpeed } from '../store/forecasts';
import { sqliteQueue as queue } from '../store/job-queue';
import { briefAt, lastStep, type PictureRow } from '../store/pictures';
import { findRevision } from '../store/projects';
import { countUnderWay, leadProof, type ProofRow } from '../store/proofs';

export function proofDto(row: ProofRow): ProofDto {
  const brief = readBrief(row.brief_json);
  const job = row.state === 'open' ? queue.ofProof(row.id) : null;
  const revision = findRevision(row.revision_id);
  const running = job?.state.name === 'running' ? job.state : null;
  return {
    id: row.id,
    pictureId: row.picture_id,
    number: row.number,
    state: stateOf(row, job),
    brief,
    current: revision !== null && filmKey(revision.glb_sha256, brief) === row.key_sha256,
    width_px: row.width_px,
    height_px: row.height_px,
    share: row.share,
    samples: row.samples,
    grain: row.grain,
    seconds: row.seconds,
    seconds_left: running && running.secondsLeft !== null ? secondsLeft(row, brief, running) : null,
    ev100: row.ev100,
    picture_count: row.picture_count,
    error: job?.state.name === 'failed' ? job.state.message : null,
    denoise_share: row.denoise_share,
    denoised_grain: row.denoised_grain,
    denoise_note: row.denoise_note,
    limited_share: row.limited_share,
    file_bytes: row.file_bytes_json ? (JSON.parse(row.file_bytes_json) as ProofDto['file_bytes']) : null,
    revision: revision?.number ?? 0,
    stopping: running?.stop != null,
    created_at_ms: row.created_at_ms,
    ended_at_ms: row.ended_at_ms ?? job?.ended_ms ?? null
  };
}

/** Until it is finished: its denoising comes after its samples. */
function secondsLeft(row: ProofRow, brief: Brief, { secondsLeft: left, phase }: RunningState): number {
  const denoised = brief.finish.denoise > 0 && (phase === 'setup' || phase === 'render');
  const work = { pixels: row.width_px * row.height_px, samples: brief.quality.samples, denoised };
  return untilFinished(left!, work, { threads: 1, denoiseSecondsPerMegapixel: denoiseSpeed(), ratios: [] });
}

function stateOf({ state }: ProofRow, job: Job | null): ProofStateDto {
  if (state === 'done' || state === 'kept') return state;
  const work = job?.state.name;
  return work === 'waiting' || work === 'running' ? work : 'failed';
}

export const briefOf = ({ id, step }: PictureRow): Brief => readBrief(briefAt(id, step)!);

function listed({ id, name, changes }: PictureRow): Pick<PictureDto, 'id' | 'name' | 'lead' | 'changes'> {
  const lead = leadProof(id);
  if (!lead) return { id, name, lead: null, changes };
  const revision = findRevision(lead.revision_id)?.number ?? 0;
  return { id, name, lead: { proof: lead.id, count: lead.picture_count, revision }, changes };
}

export const pictureItemDto = (row: PictureRow): PictureItemDto => ({
  ...listed(row),
  position: row.position,
  size: briefOf(row).size,
  underWay: countUnderWay(row.id)
});

export const pictureDto = (row: PictureRow): PictureDto => ({
  ...listed(row),
  brief: briefOf(row),
  canUndo: row.step > 0,
  canRedo: row.step < lastStep(row.id)
});
