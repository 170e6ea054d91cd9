-- Work and its results apart: a job is work in a queue, a proof is what it made. Both count changes, so that a page
-- fetches only what changed. This file is run with foreign keys off, because a table is rebuilt.

CREATE TABLE jobs (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL,
  lane TEXT NOT NULL,
  priority INTEGER NOT NULL,
  project_id TEXT REFERENCES projects (id) ON DELETE CASCADE,
  -- the proof that it makes
  proof_id TEXT REFERENCES proofs (id) ON DELETE CASCADE,
  state TEXT NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'stopped', 'failed')),
  -- what was asked of a running job, or how a stopped one ended
  stop TEXT CHECK (stop IN ('keep', 'drop')),
  worker TEXT,
  -- raised by every claim; a worker writes only with the fence of its claim
  fence INTEGER NOT NULL DEFAULT 0,
  lease_until_ms INTEGER,
  attempts INTEGER NOT NULL DEFAULT 0,
  phase TEXT,
  share REAL NOT NULL DEFAULT 0,
  share_at_claim REAL NOT NULL DEFAULT 0,
  seconds_left REAL,
  error TEXT,
  created_at_ms INTEGER NOT NULL,
  started_at_ms INTEGER,
  ended_at_ms INTEGER
);
CREATE INDEX jobs_by_lane ON jobs (lane, state, priority, created_at_ms);
CREATE INDEX jobs_by_proof ON jobs (proof_id);

CREATE TABLE proofs_apart (
  id TEXT PRIMARY KEY,
  picture_id TEXT NOT NULL REFERENCES pictures (id) ON DELETE CASCADE,
  revision_id TEXT NOT NULL REFERENCES revisions (id),
  number INTEGER NOT NULL,
  brief_json TEXT NOT NULL,
  -- sha256 of what decides the film: renderer, model and brief without finish
  key_sha256 TEXT NOT NULL,
  width_px INTEGER NOT NULL,
  height_px INTEGER NOT NULL,
  -- open: its job waits, runs or failed; kept: stopped before its end; dropped: removed
  state TEXT NOT NULL CHECK (state IN ('open', 'done', 'kept', 'dropped')),
  share REAL NOT NULL DEFAULT 0,
  samples REAL NOT NULL DEFAULT 0,
  grain REAL,
  seconds REAL NOT NULL DEFAULT 0,
  rays REAL NOT NULL DEFAULT 0,
  ev100 REAL,
  -- counts the pictures written so far, so that a browser knows when to fetch again
  picture_count INTEGER NOT NULL DEFAULT 0,
  film_sha256 TEXT,
  -- of its denoising: 0 to 1 while it runs, 1 when done, null for none
  denoise_share REAL,
  denoised_grain REAL,
  -- why there is none though it was wanted, or how it was done
  denoise_note TEXT,
  limited_share REAL,
  file_bytes_json TEXT,
  -- what its folder takes on disk
  disk_bytes INTEGER NOT NULL DEFAULT 0,
  created_at_ms INTEGER NOT NULL,
  started_at_ms INTEGER,
  ended_at_ms INTEGER,
  -- the project's change that it was last changed by
  stamp INTEGER NOT NULL DEFAULT 0,
  UNIQUE (picture_id, number)
);
INSERT INTO proofs_apart (
  id, picture_id, revision_id, number, brief_json, key_sha256, width_px, height_px, state, share, samples, grain, seconds,
  rays, ev100, picture_count, film_sha256, denoise_share, denoised_grain, denoise_note, limited_share, file_bytes_json,
  created_at_ms, started_at_ms, ended_at_ms
)
SELECT
  id, picture_id, revision_id, number, brief_json, key_sha256, width_px, height_px,
  CASE WHEN state IN ('waiting', 'running', 'failed') THEN 'open' ELSE state END,
  share, samples, grain, seconds, rays, ev100, picture_count, film_sha256, clean_share, clean_grain, clean_note,
  limited_share, file_bytes_json, created_at_ms, started_at_ms, ended_at_ms
FROM proofs;
INSERT INTO jobs (
  id, kind, lane, priority, project_id, proof_id, state, share, error, created_at_ms, started_at_ms, ended_at_ms
)
SELECT
  p.id, 'render', 'render', 0, pictures.project_id, p.id,
  CASE WHEN p.state = 'failed' THEN 'failed' ELSE 'waiting' END,
  p.share, p.error, p.created_at_ms, p.started_at_ms, CASE WHEN p.state = 'failed' THEN p.ended_at_ms END
FROM proofs AS p JOIN pictures ON pictures.id = p.picture_id
WHERE p.state IN ('waiting', 'running', 'failed');
DROP TABLE proofs;
ALTER TABLE proofs_apart RENAME TO proofs;
CREATE INDEX proofs_by_picture ON proofs (picture_id, state, number);
CREATE INDEX proofs_by_key ON proofs (key_sha256);

-- How much is kept where, as sums: nobody walks folders to tell it.
CREATE TABLE storage (
  area TEXT PRIMARY KEY,
  bytes INTEGER NOT NULL
);

-- Counts changes: a row a project, and one for the desk, which shows all of them.
CREATE TABLE stamps (
  scope TEXT PRIMARY KEY,
  number INTEGER NOT NULL
);
INSERT INTO stamps (scope, number) SELECT id, 1 FROM projects;
INSERT INTO stamps (scope, number) VALUES ('desk', 1);
ALTER TABLE pictures ADD COLUMN stamp INTEGER NOT NULL DEFAULT 0;

CREATE TRIGGER projects_added AFTER INSERT ON projects BEGIN
  INSERT INTO stamps (scope, number) VALUES (NEW.id, 1);
  UPDATE stamps SET number = number + 1 WHERE scope = 'desk';
END;
CREATE TRIGGER projects_changed AFTER UPDATE ON projects BEGIN
  UPDATE stamps SET number = number + 1 WHERE scope IN (NEW.id, 'desk');
END;
CREATE TRIGGER pictures_added AFTER INSERT ON pictures BEGIN
  UPDATE stamps SET number = number + 1 WHERE scope IN (NEW.project_id, 'desk');
  UPDATE pictures SET stamp = (SELECT number FROM stamps WHERE scope = NEW.project_id) WHERE id = NEW.id;
END;
CREATE TRIGGER pictures_changed AFTER UPDATE ON pictures BEGIN
  UPDATE stamps SET number = number + 1 WHERE scope IN (NEW.project_id, 'desk');
  UPDATE pictures SET stamp = (SELECT number FROM stamps WHERE scope = NEW.project_id) WHERE id = NEW.id;
END;
CREATE TRIGGER proofs_added AFTER INSERT ON proofs BEGIN
  UPDATE stamps SET number = number + 1
  WHERE scope IN ((SELECT project_id FROM pictures WHERE id = NEW.picture_id), 'desk');
  UPDATE proofs SET stamp =
    (SELECT number FROM stamps WHERE scope = (SELECT project_id FROM pictures WHERE id = NEW.picture_id))
  WHERE id = NEW.id;
END;
CREATE TRIGGER proofs_changed AFTER UPDATE ON proofs BEGIN
  UPDATE stamps SET number = number + 1
  WHERE scope IN ((SELECT project_id FROM pictures WHERE id = NEW.picture_id), 'desk');
  UPDATE proofs SET stamp =
    (SELECT number FROM stamps WHERE scope = (SELECT project_id FROM pictures WHERE id = NEW.picture_id))
  WHERE id = NEW.id;
  -- a picture shows its newest proof
  UPDATE pictures SET stamp = stamp
  WHERE id = NEW.picture_id AND (OLD.picture_count <> NEW.picture_count OR OLD.state <> NEW.state);
END;
-- A heartbeat is no change. Every page says what renders, of whatever project.
CREATE TRIGGER jobs_added AFTER INSERT ON jobs BEGIN
  UPDATE stamps SET number = number + 1;
  UPDATE proofs SET stamp = stamp WHERE id = NEW.proof_id;
END;
CREATE TRIGGER jobs_moved AFTER UPDATE ON jobs WHEN OLD.state <> NEW.state OR OLD.stop IS NOT NEW.stop BEGIN
  UPDATE stamps SET number = number + 1;
  UPDATE proofs SET stamp = stamp WHERE id = NEW.proof_id;
END;
CREATE TRIGGER jobs_progressed AFTER UPDATE ON jobs
WHEN OLD.phase IS NOT NEW.phase OR OLD.share <> NEW.share OR OLD.seconds_left IS NOT NEW.seconds_left BEGIN
  UPDATE proofs SET stamp = stamp WHERE id = NEW.proof_id;
END;
CREATE TRIGGER jobs_removed AFTER DELETE ON jobs BEGIN
  UPDATE stamps SET number = number + 1;
END;
