/** Parts of briefs that users keep under names, in plain SQL. */
import type { KeptKind } from '../../core/brief/kept-part';
import { prepared } from './database';

export interface KeptRow {
  id: string;
  kind: KeptKind;
  /** Null: for all projects. */
  project_id: string | null;
  name: string;
  part_json: string;
  created_at_ms: number;
}

export const listKept = (projectId: string) =>
  prepared(
    `SELECT * FROM kept WHERE (project_id IS NULL OR project_id = ?) AND removed_at_ms IS NULL ORDER BY created_at_ms`
  ).all(projectId) as KeptRow[];
export const findKept = (id: string) =>
  (prepared('SELECT * FROM kept WHERE id = ? AND removed_at_ms IS NULL').get(id) as KeptRow | undefined) ?? null;
export const insertKept = (row: KeptRow) =>
  prepared(
    `INSERT INTO kept (id, kind, project_id, name, part_json, created_at_ms)
     VALUES (:id, :kind, :project_id, :name, :part_json, :created_at_ms)`
  ).run(row);
