/** ICC profiles of presses: rows in, rows out. */
import { prepared } from './database';

export interface PressProfileRow {
  sha256: string;
  name: string;
  created_at_ms: number;
}

export const listPressProfiles = () =>
  prepared(
    'SELECT * FROM press_profiles WHERE removed_at_ms IS NULL ORDER BY created_at_ms'
  ).all() as PressProfileRow[];
export const findPressProfile = (sha256: string) =>
  (prepared('SELECT * FROM press_profiles WHERE sha256 = ? AND removed_at_ms IS NULL').get(sha256) as
    | PressProfileRow
    | undefined) ?? null;
export const insertPressProfile = (row: PressProfileRow) =>
  prepared(
    `INSERT INTO press_profiles (sha256, name, created_at_ms) VALUES (:sha256, :name, :created_at_ms)
     ON CONFLICT (sha256) DO UPDATE SET removed_at_ms = NULL`
  ).run(row);
