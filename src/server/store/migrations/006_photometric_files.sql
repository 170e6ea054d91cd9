-- Photometric files, shared by all projects; the file itself lies by its hash. curve_json: candela in two planes, for its polar curve.
CREATE TABLE photometric_files (
  sha256 TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  lumen REAL NOT NULL,
  watts REAL,
  curve_json TEXT NOT NULL,
  created_at_ms INTEGER NOT NULL
);
