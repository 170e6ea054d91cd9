-- Pictures of one's own lie on surfaces too, with their clear parts: each is listed for what it was brought in.
ALTER TABLE backdrops ADD COLUMN purpose TEXT NOT NULL DEFAULT 'behind' CHECK (purpose IN ('behind', 'surface', 'both'));
-- What a material becomes is kept under a name too.
CREATE TABLE kept_now (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('surroundings', 'cue', 'destination', 'step', 'material')),
  project_id TEXT REFERENCES projects (id),
  name TEXT NOT NULL,
  part_json TEXT NOT NULL,
  created_at_ms INTEGER NOT NULL,
  removed_at_ms INTEGER
);
INSERT INTO kept_now SELECT id, kind, project_id, name, part_json, created_at_ms, removed_at_ms FROM kept;
DROP TABLE kept;
ALTER TABLE kept_now RENAME TO kept;
