/**
 * The queue: a render service claims the oldest waiting proof with a lease and keeps the lease alive; a proof whose
 * lease ran out belongs to nobody and is claimed again, so a service may be killed at any moment.
 */
import type { FileKind } from '../../core/catalogue/file-kinds';
import { database } from '../store/database';
import type { ProofRow } from '../store/proofs';

export const LEASE_MS = 6000;
const MOST_ATTEMPTS = 5;

export function claimNext(owner: string, now: number): ProofRow | null {
  const db = database();
  return db
    .transaction(() => {
      db.prepare(
        "UPDATE proofs SET state = 'failed', error = 'the render service ended five times while " +
          "rendering this; its picture so far is kept', ended_at_ms = ? WHERE state = 'running' AND " +
          'lease_until_ms < ? AND attempts >= ?'
      ).run(now, now, MOST_ATTEMPTS);
      const row = db
        .prepare(
          "SELECT * FROM proofs WHERE state = 'waiting' OR (state = 'running' AND lease_until_ms < ?) " +
            "ORDER BY state = 'waiting', created_at_ms LIMIT 1"
        )
        .get(now) as ProofRow | undefined;
      if (!row) return null;
      db.prepare(
        "UPDATE proofs SET state = 'running', lease_owner = ?, lease_until_ms = ?, attempts = " +
          'attempts + 1, started_at_ms = coalesce(started_at_ms, ?) WHERE id = ?'
      ).run(owner, now + LEASE_MS, now, row.id);
      return db.prepare('SELECT * FROM proofs WHERE id = ?').get(row.id) as ProofRow;
    })
    .immediate();
}

/** Extends the lease; false when somebody else holds it by now. */
export function beat(id: string, owner: string, now: number): boolean {
  return (
    database()
      .prepare("UPDATE proofs SET lease_until_ms = ? WHERE id = ? AND lease_owner = ? AND state = 'running'")
      .run(now + LEASE_MS, id, owner).changes === 1
  );
}

export function stopAsked(id: string): 'keep' | 'drop' | null {
  return (
    (
      database().prepare('SELECT stop_asked FROM proofs WHERE id = ?').get(id) as
        | { stop_asked: 'keep' | 'drop' | null }
        | undefined
    )?.stop_asked ?? null
  );
}

export function saveProgress(
  id: string,
  progress: {
    share: number;
    samples: number;
    grain: number | null;
    seconds: number;
    seconds_left: number | null;
    rays: number;
    limited_share: number;
    picture_count: number;
  }
): void {
  database()
    .prepare(
      'UPDATE proofs SET share = :share, samples = :samples, grain = :grain, seconds = :seconds, ' +
        'seconds_left = :seconds_left, rays = :rays, limited_share = :limited_share, picture_count = ' +
        ':picture_count WHERE id = :id'
    )
    .run({ id, ...progress });
}

export const savePictureCount = (id: string, count: number) =>
  database().prepare('UPDATE proofs SET picture_count = ? WHERE id = ?').run(count, id);
export const saveCleaning = (id: string, share: number | null) =>
  database().prepare('UPDATE proofs SET clean_share = ?, seconds_left = NULL WHERE id = ?').run(share, id);
/** `note`: how, when it was not by the learned filter. */
export const saveClean = (id: string, grain: number | null, note: string | null) =>
  database()
    .prepare('UPDATE proofs SET clean_share = 1, clean_grain = ?, clean_note = ? WHERE id = ?')
    .run(grain, note, id);
export const saveNotClean = (id: string, why: string) =>
  database()
    .prepare('UPDATE proofs SET clean_share = NULL, clean_grain = NULL, clean_note = ? WHERE id = ?')
    .run(why, id);

export const saveFileBytes = (id: string, bytesPerPixel: Record<FileKind, number>) =>
  database().prepare('UPDATE proofs SET file_bytes_json = ? WHERE id = ?').run(JSON.stringify(bytesPerPixel), id);
export const saveExposure = (id: string, ev100: number) =>
  database().prepare('UPDATE proofs SET ev100 = ? WHERE id = ?').run(ev100, id);

export function finish(id: string, state: 'done' | 'kept' | 'dropped', filmSha256: string | null, now: number): void {
  database()
    .prepare(
      'UPDATE proofs SET state = ?, film_sha256 = ?, ended_at_ms = ?, lease_owner = NULL, ' +
        'lease_until_ms = NULL, seconds_left = NULL, stop_asked = NULL WHERE id = ?'
    )
    .run(state, filmSha256, now, id);
}

export function fail(id: string, message: string, now: number): void {
  database()
    .prepare(
      "UPDATE proofs SET state = 'failed', error = ?, ended_at_ms = ?, lease_owner = NULL, lease_until_ms = NULL WHERE id = ?"
    )
    .run(message, now, id);
}
