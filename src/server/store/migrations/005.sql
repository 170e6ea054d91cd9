-- Parts of briefs that users keep under names: surroundings for all projects, cues for one.
CREATE TABLE kept_lights (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('surroundings', 'cue')),
  project_id TEXT REFERENCES projects (id),
  name TEXT NOT NULL,
  part_json TEXT NOT NULL,
  created_at_ms INTEGER NOT NULL
);
