-- Projects, their models, pictures, briefs, proofs and the queue. Times in ms since 1970, UTC. Large data are files; rows hold their hashes.
CREATE TABLE projects (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  client TEXT NOT NULL DEFAULT '',
  kind TEXT NOT NULL DEFAULT '',
  created_at_ms INTEGER NOT NULL
);

CREATE TABLE revisions (
  id TEXT PRIMARY KEY,
  project_id TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  number INTEGER NOT NULL,
  glb_sha256 TEXT NOT NULL,
  source_name TEXT NOT NULL,
  report_json TEXT NOT NULL,
  created_at_ms INTEGER NOT NULL,
  UNIQUE (project_id, number)
);

CREATE TABLE pictures (
  id TEXT PRIMARY KEY,
  project_id TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  -- which of its brief_steps is in force
  step INTEGER NOT NULL DEFAULT 0,
  created_at_ms INTEGER NOT NULL
);

-- Every state a brief has been in, for undo and redo; a change after an undo cuts off what was ahead.
CREATE TABLE brief_steps (
  picture_id TEXT NOT NULL REFERENCES pictures(id) ON DELETE CASCADE,
  step INTEGER NOT NULL,
  brief_json TEXT NOT NULL,
  changed_at_ms INTEGER NOT NULL,
  PRIMARY KEY (picture_id, step)
);

CREATE TABLE viewpoints (
  id TEXT PRIMARY KEY,
  project_id TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  viewpoint_json TEXT NOT NULL,
  created_at_ms INTEGER NOT NULL
);

-- Captured 360 degree images, shared by all projects.
CREATE TABLE captured_images (
  sha256 TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  width_px INTEGER NOT NULL,
  height_px INTEGER NOT NULL,
  created_at_ms INTEGER NOT NULL
);

-- One render result, and the job that makes it.
CREATE TABLE proofs (
  id TEXT PRIMARY KEY,
  picture_id TEXT NOT NULL REFERENCES pictures(id) ON DELETE CASCADE,
  revision_id TEXT NOT NULL REFERENCES revisions(id),
  number INTEGER NOT NULL,
  brief_json TEXT NOT NULL,
  -- sha256 of what decides the film: revision and brief without finish
  key_sha256 TEXT NOT NULL,
  width_px INTEGER NOT NULL,
  height_px INTEGER NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'kept', 'failed', 'dropped')),
  stop_asked TEXT CHECK (stop_asked IN ('keep', 'drop')),
  lease_owner TEXT,
  lease_until_ms INTEGER,
  attempts INTEGER NOT NULL DEFAULT 0,
  share REAL NOT NULL DEFAULT 0,
  samples REAL NOT NULL DEFAULT 0,
  grain REAL,
  seconds REAL NOT NULL DEFAULT 0,
  seconds_left REAL,
  rays REAL NOT NULL DEFAULT 0,
  ev100 REAL,
  -- counts the pictures written so far, so that a browser knows when to fetch anew
  picture_count INTEGER NOT NULL DEFAULT 0,
  film_sha256 TEXT,
  error TEXT,
  created_at_ms INTEGER NOT NULL,
  started_at_ms INTEGER,
  ended_at_ms INTEGER,
  UNIQUE (picture_id, number)
);
CREATE INDEX proofs_by_state ON proofs (state, created_at_ms);
CREATE INDEX proofs_by_key ON proofs (key_sha256);

-- Speed measured on this machine, for forecasts.
CREATE TABLE measurements (
  revision_id TEXT PRIMARY KEY REFERENCES revisions(id) ON DELETE CASCADE,
  samples_per_second REAL NOT NULL,
  measured_at_ms INTEGER NOT NULL
);
