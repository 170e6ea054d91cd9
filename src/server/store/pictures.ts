/** Pictures and the steps of their briefs. */
import { database } from './database';

export interface PictureRow {
  id: string;
  project_id: string;
  position: number;
  name: string;
  step: number;
  created_at_ms: number;
  /** Grows with every change of name, brief or step. */
  changes: number;
}

export const listPictures = (projectId: string) =>
  database().prepare('SELECT * FROM pictures WHERE project_id = ? ORDER BY position').all(projectId) as PictureRow[];
export const findPicture = (id: string) =>
  (database().prepare('SELECT * FROM pictures WHERE id = ?').get(id) as PictureRow | undefined) ?? null;
export const renamePicture = (id: string, name: string) =>
  database().prepare('UPDATE pictures SET name = ?, changes = changes + 1 WHERE id = ?').run(name, id);

export function insertPicture(row: Omit<PictureRow, 'changes'>, briefJson: string): void {
  database()
    .prepare(
      'INSERT INTO pictures (id, project_id, position, name, step, created_at_ms) VALUES (:id, ' +
        ':project_id, :position, :name, :step, :created_at_ms)'
    )
    .run(row);
  database().prepare('INSERT INTO brief_steps VALUES (?, 0, ?, ?)').run(row.id, briefJson, row.created_at_ms);
}

export const briefAt = (pictureId: string, step: number) =>
  (
    database().prepare('SELECT brief_json FROM brief_steps WHERE picture_id = ? AND step = ?').get(pictureId, step) as
      | { brief_json: string }
      | undefined
  )?.brief_json ?? null;
export const lastStep = (pictureId: string) =>
  (
    database().prepare('SELECT max(step) AS step FROM brief_steps WHERE picture_id = ?').get(pictureId) as {
      step: number;
    }
  ).step;
export const setStep = (pictureId: string, step: number) =>
  database().prepare('UPDATE pictures SET step = ?, changes = changes + 1 WHERE id = ?').run(step, pictureId);

/** Puts a new brief after the one in force; what could have been redone is cut off. */
export function pushBrief(picture: PictureRow, briefJson: string, now: number): number {
  const step = picture.step + 1;
  database().prepare('DELETE FROM brief_steps WHERE picture_id = ? AND step >= ?').run(picture.id, step);
  database().prepare('INSERT INTO brief_steps VALUES (?, ?, ?, ?)').run(picture.id, step, briefJson, now);
  setStep(picture.id, step);
  return step;
}

/** Replaces the brief in force: for a drag that goes on, so that one drag is one step. */
export function replaceBrief(picture: PictureRow, briefJson: string, now: number): void {
  database()
    .prepare('UPDATE brief_steps SET brief_json = ?, changed_at_ms = ? WHERE picture_id = ? AND step = ?')
    .run(briefJson, now, picture.id, picture.step);
  setStep(picture.id, picture.step);
}
