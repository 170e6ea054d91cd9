/** Pictures that stand behind models: rows in, rows out. */
import { database } from './database';

export interface BackdropRow {
  sha256: string;
  name: string;
  width_px: number;
  height_px: number;
  created_at_ms: number;
}

export const listBackdrops = () =>
  database().prepare('SELECT * FROM backdrops ORDER BY created_at_ms').all() as BackdropRow[];
export const findBackdrop = (sha256: string) =>
  (database().prepare('SELECT * FROM backdrops WHERE sha256 = ?').get(sha256) as BackdropRow | undefined) ?? null;
export const insertBackdrop = (row: BackdropRow) =>
  database()
    .prepare('INSERT OR IGNORE INTO backdrops VALUES (:sha256, :name, :width_px, :height_px, :created_at_ms)')
    .run(row);
