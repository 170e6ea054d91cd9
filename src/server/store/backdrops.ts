/** Pictures of one's own, to stand behind models and to lie on surfaces: rows in, rows out. */
import { prepared } from './database';

export interface BackdropRow {
  sha256: string;
  name: string;
  width_px: number;
  height_px: number;
  purpose: 'behind' | 'surface' | 'both';
  created_at_ms: number;
}

export const listBackdrops = () =>
  prepared('SELECT * FROM backdrops WHERE removed_at_ms IS NULL ORDER BY created_at_ms').all() as BackdropRow[];
export const findBackdrop = (sha256: string) =>
  (prepared('SELECT * FROM backdrops WHERE sha256 = ? AND removed_at_ms IS NULL').get(sha256) as
    | BackdropRow
    | undefined) ?? null;
export const insertBackdrop = (row: BackdropRow) =>
  prepared(
    `INSERT INTO backdrops (sha256, name, width_px, height_px, purpose, created_at_ms)
     VALUES (:sha256, :name, :width_px, :height_px, :purpose, :created_at_ms)
     ON CONFLICT (sha256) DO UPDATE SET
       removed_at_ms = NULL,
       purpose = CASE WHEN purpose = excluded.purpose THEN purpose ELSE 'both' END`
  ).run(row);
