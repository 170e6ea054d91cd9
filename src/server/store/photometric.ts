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
  prepared('SELECT * FROM photometric_files ORDER BY created_at_ms').all() as PhotometricRow[];
export const insertPhotometric = (row: PhotometricRow) =>
  prepared(
    'INSERT OR IGNORE INTO photometric_files VALUES (:sha256, :name, :lumen, :watts, :curve_json, :created_at_ms)'
  ).run(row);
