/** Photometric files: rows in, rows out. */
import { prepared } from './database';

export interface PhotometricRow {
  sha256: string;
  name: string;
  lumen: number;
  watts: number | null;
  curve_json: string;
  created_at_ms: number;
}

export const listPhotometric = () =>
  prepared(
    'SELECT * FROM photometric_files WHERE removed_at_ms IS NULL ORDER BY created_at_ms'
  ).all() as PhotometricRow[];
export const insertPhotometric = (row: PhotometricRow) =>
  prepared(
    `INSERT INTO photometric_files (sha256, name, lumen, watts, curve_json, created_at_ms)
     VALUES (:sha256, :name, :lumen, :watts, :curve_json, :created_at_ms)
     ON CONFLICT (sha256) DO UPDATE SET removed_at_ms = NULL`
  ).run(row);
