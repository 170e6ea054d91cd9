/** Marks rows as removed, brings them back, and deletes them for good. One table of what can be removed. */
import type { RemovableKind, Removed } from '../../core/catalogue/removable';
import { prepared } from './database';

const TABLES: Record<RemovableKind, { table: string; key: string; name: string }> = {
  project: { table: 'projects', key: 'id', name: 'name' },
  picture: { table: 'pictures', key: 'id', name: 'name' },
  proof: {
    table: 'proofs',
    key: 'id',
    name: `'proof ' || number || ' of ' || (SELECT name FROM pictures WHERE id = picture_id)`
  },
  viewpoint: { table: 'viewpoints', key: 'id', name: 'name' },
  part: { table: 'kept', key: 'id', name: 'name' },
  captured: { table: 'captured_images', key: 'sha256', name: 'name' },
  photometric: { table: 'photometric_files', key: 'sha256', name: 'name' },
  backdrop: { table: 'backdrops', key: 'sha256', name: 'name' },
  profile: { table: 'press_profiles', key: 'sha256', name: 'name' }
};

/** Its name while it is there; null when it is not, or was removed. */
export function nameOf(kind: RemovableKind, id: string): string | null {
  const { table, key, name } = TABLES[kind];
  const row = prepared(`SELECT ${name} AS name FROM ${table} WHERE ${key} = ? AND removed_at_ms IS NULL`).get(id);
  return (row as { name: string } | undefined)?.name ?? null;
}

export function setName(kind: Exclude<RemovableKind, 'proof'>, id: string, name: string): void {
  const { table, key } = TABLES[kind];
  // pictures count their changes, so that of two states the newer is known
  const counted = kind === 'picture' ? ', changes = changes + 1' : '';
  prepared(`UPDATE ${table} SET name = ?${counted} WHERE ${key} = ?`).run(name, id);
}

export function markRemoved(kind: RemovableKind, id: string, now: number): void {
  const { table, key } = TABLES[kind];
  prepared(`UPDATE ${table} SET removed_at_ms = ? WHERE ${key} = ?`).run(now, id);
}

/** False when it is gone for good, or was not removed. */
export function unmarkRemoved(kind: RemovableKind, id: string): boolean {
  const { table, key } = TABLES[kind];
  const sql = `UPDATE ${table} SET removed_at_ms = NULL WHERE ${key} = ? AND removed_at_ms IS NOT NULL`;
  return prepared(sql).run(id).changes > 0;
}

/** What was removed before a time, the oldest first; with `after`, since another. */
export function listRemoved(kind: RemovableKind, before: number, after = 0): Removed[] {
  const { table, key, name } = TABLES[kind];
  const rows = prepared(
    `SELECT ${key} AS id, ${name} AS name, removed_at_ms FROM ${table}
     WHERE removed_at_ms <= ? AND removed_at_ms >= ? ORDER BY removed_at_ms`
  ).all(before, after) as Omit<Removed, 'kind'>[];
  return rows.map((row) => ({ kind, ...row }));
}

/** Deletes a row for good, with all rows that belong to it. */
export function deleteRow(kind: RemovableKind, id: string): void {
  const { table, key } = TABLES[kind];
  if (kind === 'project') prepared('DELETE FROM kept WHERE project_id = ?').run(id);
  prepared(`DELETE FROM ${table} WHERE ${key} = ?`).run(id);
}

/** Ids of the proofs of a project, a picture, or of one alone, removed ones among them. */
export function proofsUnder(kind: RemovableKind, id: string): string[] {
  const where = { project: 'pictures.project_id', picture: 'proofs.picture_id', proof: 'proofs.id' }[kind as 'project'];
  if (!where) return [];
  const sql = `SELECT proofs.id FROM proofs JOIN pictures ON pictures.id = proofs.picture_id WHERE ${where} = ?`;
  return (prepared(sql).all(id) as { id: string }[]).map((row) => row.id);
}

/** Whether there is such a row, removed or not. */
export const isProof = (id: string): boolean => prepared('SELECT 1 FROM proofs WHERE id = ?').get(id) !== undefined;
export const isModel = (sha256: string): boolean =>
  prepared(
    `SELECT 1 FROM revisions WHERE glb_sha256 = :sha256
     UNION ALL SELECT 1 FROM further_models WHERE glb_sha256 = :sha256`
  ).get({ sha256 }) !== undefined;

/** Whether a brief, or what was saved of one, names a colour table. */
export const isTable = (sha256: string): boolean =>
  prepared(
    `SELECT 1 FROM brief_steps WHERE instr(brief_json, :sha256)
     UNION ALL SELECT 1 FROM proofs WHERE instr(brief_json, :sha256)
     UNION ALL SELECT 1 FROM kept WHERE instr(part_json, :sha256) LIMIT 1`
  ).get({ sha256 }) !== undefined;

/** Hashes of the models of a project that no other project has. */
export const modelsOnlyOf = (project: string): string[] =>
  (
    prepared(
      `WITH used AS (SELECT project_id, glb_sha256 FROM revisions
         UNION SELECT project_id, glb_sha256 FROM further_models)
       SELECT DISTINCT glb_sha256 FROM used WHERE project_id = :project AND glb_sha256 NOT IN
         (SELECT glb_sha256 FROM used WHERE project_id <> :project)`
    ).all({ project }) as { glb_sha256: string }[]
  ).map((row) => row.glb_sha256);

/**
 * The name of a picture whose brief names a file, or that has a proof of it; null when none does. Removed pictures and
 * proofs count while they can be brought back.
 */
export function pictureWithFile(sha256: string): string | null {
  const row = prepared(
    `SELECT pictures.name FROM pictures WHERE
       EXISTS (SELECT 1 FROM brief_steps s WHERE s.picture_id = pictures.id AND s.step = pictures.step
         AND instr(s.brief_json, :sha256) > 0)
       OR EXISTS (SELECT 1 FROM proofs p WHERE p.picture_id = pictures.id AND instr(p.brief_json, :sha256) > 0)
     LIMIT 1`
  ).get({ sha256 });
  return (row as { name: string } | undefined)?.name ?? null;
}
