/** Files beside a project's models: the originals of meshed ones, and further models that stand in its pictures. */
import { prepared } from './database';

export interface OriginalFile {
  /** With the folders that it came with. */
  name: string;
  sha256: string;
}

export const insertOriginal = (revision_id: string, { name, sha256 }: OriginalFile) =>
  prepared(
    `INSERT INTO originals VALUES (?, ?, ?)
     ON CONFLICT (revision_id, name) DO UPDATE SET sha256 = excluded.sha256`
  ).run(revision_id, name, sha256);
export const listOriginals = (revision_id: string) =>
  prepared('SELECT name, sha256 FROM originals WHERE revision_id = ? ORDER BY rowid').all(
    revision_id
  ) as OriginalFile[];
export const isOriginal = (sha256: string): boolean =>
  prepared(
    `SELECT 1 FROM originals WHERE sha256 = :sha256
     UNION ALL SELECT 1 FROM revisions WHERE unrepaired_sha256 = :sha256`
  ).get({ sha256 }) !== undefined;

export interface FurtherModelRow {
  project_id: string;
  glb_sha256: string;
  name: string;
  height_m: number;
  created_at_ms: number;
}

export const insertFurtherModel = (row: FurtherModelRow) =>
  prepared(
    `INSERT INTO further_models VALUES (:project_id, :glb_sha256, :name, :height_m, :created_at_ms)
     ON CONFLICT (project_id, glb_sha256) DO UPDATE SET name = :name`
  ).run(row);
export const listFurtherModels = (project_id: string) =>
  prepared('SELECT * FROM further_models WHERE project_id = ? ORDER BY created_at_ms').all(
    project_id
  ) as FurtherModelRow[];
