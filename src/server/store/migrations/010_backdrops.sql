-- Pictures to stand behind models, shared by all projects; the picture itself lies by its hash, upright, in sRGB, as PNG.
CREATE TABLE backdrops (
  sha256 TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  width_px INTEGER NOT NULL,
  height_px INTEGER NOT NULL,
  created_at_ms INTEGER NOT NULL
);
-- Costs are measured with materials and the place of the change now.
DELETE FROM costs;
