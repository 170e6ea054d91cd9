-- What a user removes is marked, can be brought back for ten minutes, and is then deleted with its files.
ALTER TABLE projects ADD COLUMN removed_at_ms INTEGER;
ALTER TABLE pictures ADD COLUMN removed_at_ms INTEGER;
ALTER TABLE proofs ADD COLUMN removed_at_ms INTEGER;
ALTER TABLE viewpoints ADD COLUMN removed_at_ms INTEGER;
ALTER TABLE kept ADD COLUMN removed_at_ms INTEGER;
ALTER TABLE captured_images ADD COLUMN removed_at_ms INTEGER;
ALTER TABLE photometric_files ADD COLUMN removed_at_ms INTEGER;
ALTER TABLE backdrops ADD COLUMN removed_at_ms INTEGER;
-- proofs that were dropped before are removed ones that did not end
UPDATE proofs SET removed_at_ms = coalesce(ended_at_ms, created_at_ms), state = 'kept' WHERE state = 'dropped';
