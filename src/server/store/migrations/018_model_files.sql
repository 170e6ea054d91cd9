-- Files of models that hold solids, so that they can be meshed anew; models that stand beside a project's own.
CREATE TABLE originals (
  revision_id TEXT NOT NULL REFERENCES revisions (id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL,
  PRIMARY KEY (revision_id, name)
);
CREATE INDEX originals_by_file ON originals (sha256);
CREATE TABLE further_models (
  project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
  glb_sha256 TEXT NOT NULL,
  name TEXT NOT NULL,
  height_m REAL NOT NULL,
  created_at_ms INTEGER NOT NULL,
  PRIMARY KEY (project_id, glb_sha256)
);
CREATE INDEX further_models_by_file ON further_models (glb_sha256);
-- The model before its repairs, where something can be repaired; its report says which were done.
ALTER TABLE revisions ADD COLUMN unrepaired_sha256 TEXT;
-- The file of the watched folder that a project follows, and what became of its last save; null where all is well.
ALTER TABLE projects ADD COLUMN watched_file TEXT;
ALTER TABLE projects ADD COLUMN watch_note TEXT;
