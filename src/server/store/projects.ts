/**
 * Projects, revisions, viewpoints and captured images, in plain SQL. Rows in, rows out; use cases make DTOs of them.
 */
import { prepared } from './database';

export interface ProjectRow {
  id: string;
  name: string;
  client: string;
  kind: string;
  created_at_ms: number;
}
/** As it is stored: with the file that it follows. */
interface StoredProject extends ProjectRow {
  watched_file: string | null;
  watch_note: string | null;
}
export interface RevisionRow {
  id: string;
  project_id: string;
  number: number;
  glb_sha256: string;
  source_name: string;
  report_json: string;
  created_at_ms: number;
  /** The model before its repairs, in the file's own unit; null where nothing can be repaired. */
  unrepaired_sha256: string | null;
}
export interface ViewpointRow {
  id: string;
  project_id: string;
  name: string;
  viewpoint_json: string;
  created_at_ms: number;
}
export interface CapturedRow {
  sha256: string;
  name: string;
  width_px: number;
  height_px: number;
  created_at_ms: number;
  sun_json: string | null;
}

/** The newest first. */
export const listProjects = (limit: number) =>
  prepared(`SELECT * FROM projects WHERE removed_at_ms IS NULL ORDER BY created_at_ms DESC LIMIT ?`).all(
    limit
  ) as ProjectRow[];
export const countProjects = () =>
  (prepared('SELECT count(*) AS count FROM projects WHERE removed_at_ms IS NULL').get() as { count: number }).count;
export const findProjectsNamed = (name: string) =>
  prepared('SELECT id FROM projects WHERE name = ? AND removed_at_ms IS NULL').all(name) as { id: string }[];
export const isProjectName = (name: string): boolean =>
  prepared('SELECT 1 FROM projects WHERE name = ? AND removed_at_ms IS NULL').get(name) !== undefined;
export const findProject = (id: string) =>
  (prepared('SELECT * FROM projects WHERE id = ? AND removed_at_ms IS NULL').get(id) as StoredProject | undefined) ??
  null;
/** What became of an earlier file is forgotten. */
export const setWatched = (id: string, file: string | null) =>
  prepared('UPDATE projects SET watched_file = ?, watch_note = NULL WHERE id = ?').run(file, id);
export const setWatchNote = (id: string, note: string | null) =>
  prepared('UPDATE projects SET watch_note = ? WHERE id = ?').run(note, id);
export const listWatched = () =>
  prepared('SELECT id, watched_file FROM projects WHERE watched_file IS NOT NULL AND removed_at_ms IS NULL').all() as {
    id: string;
    watched_file: string;
  }[];
export const insertProject = (row: ProjectRow) =>
  prepared(
    `INSERT INTO projects (id, name, client, kind, created_at_ms) VALUES (:id, :name, :client, :kind, :created_at_ms)`
  ).run(row);

export const latestRevision = (projectId: string) =>
  (prepared('SELECT * FROM revisions WHERE project_id = ? ORDER BY number DESC LIMIT 1').get(projectId) as
    | RevisionRow
    | undefined) ?? null;
export const listRevisions = (projectId: string) =>
  prepared('SELECT * FROM revisions WHERE project_id = ? ORDER BY number DESC').all(projectId) as RevisionRow[];
export const findRevision = (id: string) =>
  (prepared('SELECT * FROM revisions WHERE id = ?').get(id) as RevisionRow | undefined) ?? null;
export const insertRevision = (row: RevisionRow) =>
  prepared(
    `INSERT INTO revisions (id, project_id, number, glb_sha256, source_name, report_json, created_at_ms, unrepaired_sha256)
     VALUES (:id, :project_id, :number, :glb_sha256, :source_name, :report_json, :created_at_ms, :unrepaired_sha256)`
  ).run(row);

/** Gives a revision another form of its model. */
export const replaceModel = (
  revisionId: string,
  { glb_sha256, unrepaired_sha256 }: Pick<RevisionRow, 'glb_sha256' | 'unrepaired_sha256'>,
  reportJson: string
) =>
  prepared('UPDATE revisions SET glb_sha256 = ?, unrepaired_sha256 = ?, report_json = ? WHERE id = ?').run(
    glb_sha256,
    unrepaired_sha256,
    reportJson,
    revisionId
  );
export const saveViewpoint = (id: string, viewpointJson: string) =>
  prepared('UPDATE viewpoints SET viewpoint_json = ? WHERE id = ?').run(viewpointJson, id);
/** Tells all pages that the project is another. */
export const touchProject = (id: string) => prepared('UPDATE projects SET name = name WHERE id = ?').run(id);

export const saveReport = (revisionId: string, reportJson: string) =>
  prepared('UPDATE revisions SET report_json = ? WHERE id = ?').run(reportJson, revisionId);

export const listViewpoints = (projectId: string) =>
  prepared('SELECT * FROM viewpoints WHERE project_id = ? AND removed_at_ms IS NULL ORDER BY created_at_ms').all(
    projectId
  ) as ViewpointRow[];
export const insertViewpoint = (row: ViewpointRow) =>
  prepared(
    `INSERT INTO viewpoints (id, project_id, name, viewpoint_json, created_at_ms)
     VALUES (:id, :project_id, :name, :viewpoint_json, :created_at_ms)`
  ).run(row);

export const listCaptured = () =>
  prepared('SELECT * FROM captured_images WHERE removed_at_ms IS NULL ORDER BY created_at_ms').all() as CapturedRow[];
export const findCaptured = (sha256: string) =>
  (prepared('SELECT * FROM captured_images WHERE sha256 = ? AND removed_at_ms IS NULL').get(sha256) as
    | CapturedRow
    | undefined) ?? null;
export const insertCaptured = (row: CapturedRow) =>
  prepared(
    `INSERT INTO captured_images (sha256, name, width_px, height_px, created_at_ms, sun_json)
     VALUES (:sha256, :name, :width_px, :height_px, :created_at_ms, :sun_json)
     ON CONFLICT (sha256) DO UPDATE SET removed_at_ms = NULL`
  ).run(row);
