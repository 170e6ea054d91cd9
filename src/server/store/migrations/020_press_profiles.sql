-- The ICC profiles of presses, by the hash of their file.
CREATE TABLE press_profiles (
  sha256 TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  created_at_ms INTEGER NOT NULL,
  removed_at_ms INTEGER
);
