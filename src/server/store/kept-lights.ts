/** Surroundings and cues that users keep under names, in plain SQL. */
import { database } from './database';

export interface KeptLightRow {
  id: string;
  kind: 'surroundings' | 'cue';
  /** Null: for all projects. */
  project_id: string | null;
  name: string;
  part_json: string;
  created_at_ms: number;
}

export const listKeptLights = (projectId: string) => database().prepare('SELECT * FROM kept_lights WHERE project_id IS NULL OR project_id = ? ORDER BY created_at_ms').all(projectId) as KeptLightRow[];
export const findKeptLight = (id: string) => (database().prepare('SELECT * FROM kept_lights WHERE id = ?').get(id) as KeptLightRow | undefined) ?? null;
export const insertKeptLight = (row: KeptLightRow) => database().prepare('INSERT INTO kept_lights VALUES (:id, :kind, :project_id, :name, :part_json, :created_at_ms)').run(row);
export const deleteKeptLight = (id: string): boolean => database().prepare('DELETE FROM kept_lights WHERE id = ?').run(id).changes > 0;
