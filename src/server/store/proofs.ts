/** Proofs, in plain SQL: what renders made. The work that makes them is in job-queue.ts. */
import type { FileKind } from '../../core/catalogue/file-kinds';
import { prepared } from './database';
import { LEASE_HOLDS, type Lease, LeaseLost } from './lease';

/** `open`: its job waits, runs or failed. `kept`: stopped before its end, to be continued. */
export type ProofState = 'open' | 'done' | 'kept';

export interface ProofRow {
  id: string;
  picture_id: string;
  revision_id: string;
  number: number;
  brief_json: string;
  key_sha256: string;
  width_px: number;
  height_px: number;
  state: ProofState;
  share: number;
  samples: number;
  grain: number | null;
  seconds: number;
  rays: number;
  ev100: number | null;
  picture_count: number;
  film_sha256: string | null;
  denoise_share: number | null;
  denoised_grain: number | null;
  denoise_note: string | null;
  limited_share: number | null;
  file_bytes_json: string | null;
  disk_bytes: number;
  created_at_ms: number;
  started_at_ms: number | null;
  ended_at_ms: number | null;
  stamp: number;
  removed_at_ms: number | null;
}

/** The newest proofs of a picture below a number, newest first. */
export const listProofsOf = (picture: string, before: number, limit: number) =>
  prepared(
    `SELECT * FROM proofs WHERE picture_id = ? AND removed_at_ms IS NULL AND number < ? ORDER BY number DESC LIMIT ?`
  ).all(picture, before, limit) as ProofRow[];

/** Those of a picture that changed after a change of the project, removed ones among them, newest first. */
export const listProofsSince = (picture: string, stamp: number) =>
  prepared('SELECT * FROM proofs WHERE picture_id = ? AND stamp > ? ORDER BY number DESC').all(
    picture,
    stamp
  ) as ProofRow[];

/** The newest finished proof of a whole picture; null when there is none. */
export const newestWhole = (picture: string) =>
  (prepared(
    `SELECT * FROM proofs
     WHERE picture_id = ? AND removed_at_ms IS NULL AND state = 'done' AND json_extract(brief_json, '$.patch') IS NULL
     ORDER BY number DESC LIMIT 1`
  ).get(picture) as ProofRow | undefined) ?? null;

/** How many proofs of a picture there are below a number. */
export const countProofsOf = (picture: string, before: number) =>
  (
    prepared(`SELECT count(*) AS count FROM proofs WHERE picture_id = ? AND removed_at_ms IS NULL AND number < ?`).get(
      picture,
      before
    ) as { count: number }
  ).count;

/** How many proofs of a picture render or wait. */
export const countUnderWay = (picture: string) =>
  (
    prepared(
      `SELECT count(*) AS count FROM proofs JOIN jobs ON jobs.proof_id = proofs.id
       WHERE picture_id = ? AND removed_at_ms IS NULL AND proofs.state = 'open' AND jobs.state IN ('waiting', 'running')`
    ).get(picture) as { count: number }
  ).count;

/** The newest whole proof of a picture that has something to show, one that has ended first; null when there is none. */
export const leadProof = (pictureId: string) =>
  (prepared(
    `SELECT id, revision_id, picture_count, width_px, height_px FROM proofs
     WHERE picture_id = ? AND removed_at_ms IS NULL AND picture_count > 0 AND json_extract(brief_json, '$.patch') IS NULL
     ORDER BY state = 'open', number DESC LIMIT 1`
  ).get(pictureId) as Pick<ProofRow, 'id' | 'revision_id' | 'picture_count' | 'width_px' | 'height_px'> | undefined) ??
  null;

/** The newest proof of a project that has ended, with its brief. */
export const lastEndedProof = (project: string) =>
  (prepared(
    `SELECT proofs.brief_json, proofs.ended_at_ms FROM proofs JOIN pictures ON pictures.id = proofs.picture_id
     WHERE project_id = ? AND state IN ('done', 'kept') AND proofs.removed_at_ms IS NULL
       AND pictures.removed_at_ms IS NULL ORDER BY proofs.ended_at_ms DESC LIMIT 1`
  ).get(project) as { brief_json: string; ended_at_ms: number } | undefined) ?? null;

export const findProof = (id: string) =>
  (prepared('SELECT * FROM proofs WHERE id = ? AND removed_at_ms IS NULL').get(id) as ProofRow | undefined) ?? null;

export const nextNumber = (pictureId: string) =>
  (
    prepared('SELECT coalesce(max(number), 0) + 1 AS number FROM proofs WHERE picture_id = ?').get(pictureId) as {
      number: number;
    }
  ).number;

/** The proofs of a picture that are this very film, or a part of it, or whose job may still make it; newest first. */
export const listByKey = (pictureId: string, key: string) =>
  prepared(
    'SELECT * FROM proofs WHERE picture_id = ? AND key_sha256 = ? AND removed_at_ms IS NULL ORDER BY number DESC'
  ).all(pictureId, key) as ProofRow[];

/** How many films there are, and what they take on disk. */
export const filmTotals = () =>
  prepared('SELECT count(*) AS films, coalesce(sum(disk_bytes), 0) AS bytes FROM proofs').get() as {
    films: number;
    bytes: number;
  };

export function insertProof(
  row: Pick<
    ProofRow,
    | 'id'
    | 'picture_id'
    | 'revision_id'
    | 'number'
    | 'brief_json'
    | 'key_sha256'
    | 'width_px'
    | 'height_px'
    | 'created_at_ms'
  >
): void {
  prepared(
    `INSERT INTO proofs
       (id, picture_id, revision_id, number, brief_json, key_sha256, width_px, height_px, state, created_at_ms)
     VALUES
       (:id, :picture_id, :revision_id, :number, :brief_json, :key_sha256, :width_px, :height_px, 'open', :created_at_ms)`
  ).run(row);
}

/** Copies what a film cost and how it was denoised to a proof that is made of another's film. */
export function copyFilmFacts(id: string, from: string, denoised: boolean): void {
  const film = 'share, samples, grain, seconds, rays, ev100, limited_share, film_sha256';
  const denoising = 'denoise_share, denoised_grain, denoise_note';
  for (const columns of denoised ? [film, denoising] : [film])
    prepared(`UPDATE proofs SET (${columns}) = (SELECT ${columns} FROM proofs WHERE id = :from) WHERE id = :id`).run({
      id,
      from
    });
}

/** What the worker of a proof may write. */
export type ProofFacts = Partial<
  Pick<
    ProofRow,
    | 'state'
    | 'share'
    | 'samples'
    | 'grain'
    | 'seconds'
    | 'rays'
    | 'ev100'
    | 'picture_count'
    | 'film_sha256'
    | 'denoise_share'
    | 'denoised_grain'
    | 'denoise_note'
    | 'limited_share'
    | 'disk_bytes'
    | 'started_at_ms'
    | 'ended_at_ms'
  > & { file_bytes: Record<FileKind, number> }
>;

/** Writes facts of a proof for the worker that holds its job. Throws LeaseLost, and writes nothing, when it no longer does. */
export function writeProof(id: string, lease: Lease, facts: ProofFacts): void {
  const { file_bytes, ...rest } = facts;
  const columns = { ...rest, ...(file_bytes ? { file_bytes_json: JSON.stringify(file_bytes) } : {}) };
  const sets = Object.keys(columns).map((column) => `${column} = :${column}`);
  const written = prepared(`UPDATE proofs SET ${sets.join(', ')} WHERE id = :id AND ${LEASE_HOLDS}`).run({
    ...columns,
    id,
    ...lease
  });
  if (written.changes === 0) throw new LeaseLost(lease);
}

/**
 * A proof whose film is damaged is no longer found for its brief, nor is its film taken for others; with it those that share
 * the film.
 */
export const forgetFilm = (id: string) =>
  prepared(
    "UPDATE proofs SET key_sha256 = '' WHERE id = :id OR film_sha256 = (SELECT film_sha256 FROM proofs WHERE id = :id)"
  ).run({ id });

/** Ends a proof whose work was stopped: it is unfinished, with what there is of it. */
export const haltProof = (id: string, now: number) =>
  prepared("UPDATE proofs SET state = 'kept', ended_at_ms = ? WHERE id = ? AND state = 'open'").run(now, id);

/** An unfinished proof is worked on again; false when it is not one. */
export const reopenProof = (id: string): boolean =>
  prepared(
    `UPDATE proofs SET state = 'open', ended_at_ms = NULL, denoise_share = NULL, denoised_grain = NULL,
       denoise_note = NULL, file_bytes_json = NULL,
       film_sha256 = NULL
     WHERE id = ? AND state = 'kept'`
  ).run(id).changes > 0;
