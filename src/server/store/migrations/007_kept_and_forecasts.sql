-- Parts of briefs that users keep under names: surroundings, destinations and quality steps for all projects, cues for one.
CREATE TABLE kept (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('surroundings', 'cue', 'destination', 'step')),
  project_id TEXT REFERENCES projects (id),
  name TEXT NOT NULL,
  part_json TEXT NOT NULL,
  created_at_ms INTEGER NOT NULL
);
INSERT INTO kept SELECT id, kind, project_id, name, part_json, created_at_ms FROM kept_lights;
DROP TABLE kept_lights;

-- What the patches of a brief told, by what they were patches of, and how long proofs then took against their forecast.
CREATE TABLE probes (
  key_sha256 TEXT PRIMARY KEY,
  probe_json TEXT NOT NULL,
  made_at_ms INTEGER NOT NULL
);
CREATE TABLE forecast_pairs (
  proof_id TEXT PRIMARY KEY REFERENCES proofs (id) ON DELETE CASCADE,
  project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
  -- of rendering alone, without setting up and denoising
  forecast_seconds REAL NOT NULL,
  took_seconds REAL NOT NULL,
  ended_at_ms INTEGER NOT NULL
);
-- Of this machine.
CREATE TABLE machine (
  name TEXT PRIMARY KEY,
  value REAL NOT NULL
);
DROP TABLE measurements;
