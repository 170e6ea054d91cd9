/** Proofs and, with them, the queue's jobs. Claims and heartbeats are in jobs/. */
import { database } from './database';

export type ProofState = 'waiting' | 'running' | 'done' | 'kept' | 'failed' | 'dropped';

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
  stop_asked: 'keep' | 'drop' | null;
  lease_owner: string | null;
  lease_until_ms: number | null;
  attempts: number;
  share: number;
  samples: number;
  grain: number | null;
  seconds: number;
  seconds_left: number | null;
  rays: number;
  ev100: number | null;
  picture_count: number;
  film_sha256: string | null;
  error: string | null;
  clean_share: number | null;
  clean_grain: number | null;
  clean_note: string | null;
  limited_share: number | null;
  file_bytes_json: string | null;
  created_at_ms: number;
  started_at_ms: number | null;
  ended_at_ms: number | null;
}

export const listProofs = (pictureId: string) =>
  database()
    .prepare("SELECT * FROM proofs WHERE picture_id = ? AND state <> 'dropped' ORDER BY number DESC")
    .all(pictureId) as ProofRow[];
export const findProof = (id: string) =>
  (database().prepare('SELECT * FROM proofs WHERE id = ?').get(id) as ProofRow | undefined) ?? null;
export const openProofs = () =>
  database()
    .prepare("SELECT * FROM proofs WHERE state IN ('waiting', 'running') ORDER BY created_at_ms")
    .all() as ProofRow[];
export const nextNumber = (pictureId: string) =>
  (
    database().prepare('SELECT coalesce(max(number), 0) + 1 AS n FROM proofs WHERE picture_id = ?').get(pictureId) as {
      n: number;
    }
  ).n;
/** The proofs of a picture that are, or will be, this very film; newest first. */
export const listByKey = (pictureId: string, key: string) =>
  database()
    .prepare(
      "SELECT * FROM proofs WHERE picture_id = ? AND key_sha256 = ? AND state IN ('waiting', 'running', 'done') ORDER BY number DESC"
    )
    .all(pictureId, key) as ProofRow[];
export const proofCounts = () =>
  database().prepare("SELECT count(*) AS films FROM proofs WHERE state IN ('done', 'kept')").get() as { films: number };

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
  database()
    .prepare(
      `INSERT INTO proofs (id, picture_id, revision_id, number, brief_json, key_sha256, width_px, height_px, state, created_at_ms)
       VALUES (:id, :picture_id, :revision_id, :number, :brief_json, :key_sha256, :width_px, :height_px, 'waiting', :created_at_ms)`
    )
    .run(row);
}

/** What a film cost and how it was denoised, for a proof that is made of another's film. */
export function copyFilmFacts(id: string, from: string, denoised: boolean): void {
  database()
    .prepare(
      'UPDATE proofs SET (share, samples, grain, seconds, rays, ev100, limited_share, film_sha256) = ' +
        '(SELECT share, samples, grain, seconds, rays, ev100, limited_share, film_sha256 FROM proofs ' +
        'WHERE id = :from) WHERE id = :id'
    )
    .run({ id, from });
  if (denoised)
    database()
      .prepare(
        'UPDATE proofs SET (clean_share, clean_grain, clean_note) = (SELECT clean_share, clean_grain, ' +
          'clean_note FROM proofs WHERE id = :from) WHERE id = :id'
      )
      .run({ id, from });
}

/** Asks a render to end. One that has not begun ends at once. */
export function askStop(id: string, how: 'keep' | 'drop', now: number): void {
  const db = database();
  db.transaction(() => {
    db.prepare("UPDATE proofs SET state = 'dropped', ended_at_ms = ? WHERE id = ? AND state = 'waiting'").run(now, id);
    db.prepare("UPDATE proofs SET stop_asked = ? WHERE id = ? AND state = 'running'").run(how, id);
  })();
}

export const retryProof = (id: string) =>
  database()
    .prepare(
      "UPDATE proofs SET state = 'waiting', error = NULL, ended_at_ms = NULL, attempts = 0 WHERE id = ? AND state = 'failed'"
    )
    .run(id);
export const dropProof = (id: string, now: number) =>
  database()
    .prepare(
      "UPDATE proofs SET state = 'dropped', ended_at_ms = ? WHERE id = ? AND state NOT IN ('running', 'waiting')"
    )
    .run(now, id);
