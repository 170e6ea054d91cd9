/** Pictures and the steps of their briefs. */
import { prepared } from './database';

export interface PictureRow {
  id: string;
  project_id: string;
  position: number;
  name: string;
  step: number;
  created_at_ms: number;
  /** Grows with every change of name, brief or step. */
  changes: number;
  /** The project's change that it was last changed by, by itself or by one of its proofs. */
  stamp: number;
  removed_at_ms: number | null;
}

export const listPictures = (projectId: string) =>
  prepared(
    'SELECT * FROM pictures WHERE project_id = ? AND removed_at_ms IS NULL ORDER BY position, created_at_ms'
  ).all(projectId) as PictureRow[];
export const countPictures = (projectId: string) =>
  (
    prepared('SELECT count(*) AS count FROM pictures WHERE project_id = ? AND removed_at_ms IS NULL').get(
      projectId
    ) as {
      count: number;
    }
  ).count;
/** Those that changed after a change of the project, removed ones among them. */
export const listPicturesSince = (projectId: string, stamp: number) =>
  prepared('SELECT * FROM pictures WHERE project_id = ? AND stamp > ? ORDER BY position').all(
    projectId,
    stamp
  ) as PictureRow[];
export const findPicture = (id: string) =>
  (prepared('SELECT * FROM pictures WHERE id = ? AND removed_at_ms IS NULL').get(id) as PictureRow | undefined) ?? null;

export function insertPicture(row: Omit<PictureRow, 'changes' | 'stamp' | 'removed_at_ms'>, briefJson: string): void {
  prepared(
    'INSERT INTO pictures (id, project_id, position, name, step, created_at_ms) VALUES (:id, ' +
      ':project_id, :position, :name, :step, :created_at_ms)'
  ).run(row);
  prepared('INSERT INTO brief_steps VALUES (?, 0, ?, ?)').run(row.id, briefJson, row.created_at_ms);
}

/** Puts the pictures of a project in an order; those that stay where they are are not changed. */
export function orderPictures(ids: readonly string[]): void {
  for (const [position, id] of ids.entries())
    prepared('UPDATE pictures SET position = ?, changes = changes + 1 WHERE id = ? AND position <> ?').run(
      position,
      id,
      position
    );
}

export const briefAt = (pictureId: string, step: number) =>
  (
    prepared('SELECT brief_json FROM brief_steps WHERE picture_id = ? AND step = ?').get(pictureId, step) as
      | { brief_json: string }
      | undefined
  )?.brief_json ?? null;
export const lastStep = (pictureId: string) =>
  (
    prepared('SELECT max(step) AS step FROM brief_steps WHERE picture_id = ?').get(pictureId) as {
      step: number;
    }
  ).step;
export const setStep = (pictureId: string, step: number) =>
  prepared('UPDATE pictures SET step = ?, changes = changes + 1 WHERE id = ?').run(step, pictureId);

/** Every state that the briefs of a project have been in. */
export const listSteps = (projectId: string) =>
  prepared(
    `SELECT picture_id, step, brief_json FROM brief_steps
     WHERE picture_id IN (SELECT id FROM pictures WHERE project_id = ?)`
  ).all(projectId) as { picture_id: string; step: number; brief_json: string }[];
export const rewriteStep = (pictureId: string, step: number, briefJson: string) =>
  prepared('UPDATE brief_steps SET brief_json = ? WHERE picture_id = ? AND step = ?').run(briefJson, pictureId, step);

/** Puts a new brief after the one in force; what could have been redone is cut off. */
export function pushBrief(picture: PictureRow, briefJson: string, now: number): number {
  const step = picture.step + 1;
  prepared('DELETE FROM brief_steps WHERE picture_id = ? AND step >= ?').run(picture.id, step);
  prepared('INSERT INTO brief_steps VALUES (?, ?, ?, ?)').run(picture.id, step, briefJson, now);
  setStep(picture.id, step);
  return step;
}

/** Replaces the brief in force: for a drag that goes on, so that one drag is one step. */
export function replaceBrief(picture: PictureRow, briefJson: string, now: number): void {
  prepared('UPDATE brief_steps SET brief_json = ?, changed_at_ms = ? WHERE picture_id = ? AND step = ?').run(
    briefJson,
    now,
    picture.id,
    picture.step
  );
  setStep(picture.id, picture.step);
}
