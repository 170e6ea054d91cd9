-- What costs time in a brief, measured, by what it was measured of (as probes are), as JSON.
CREATE TABLE costs (
  key_sha256 TEXT PRIMARY KEY,
  costs_json TEXT NOT NULL,
  made_at_ms INTEGER NOT NULL
);
