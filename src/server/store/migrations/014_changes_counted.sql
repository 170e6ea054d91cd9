-- How often a picture has been changed, its brief's steps back and forth among it: of two states of it the newer is known.
ALTER TABLE pictures ADD COLUMN changes INTEGER NOT NULL DEFAULT 0;
