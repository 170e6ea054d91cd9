-- Denoising: how far it is (null: none wanted or not begun), the grain that it leaves, and why there is none when it was wanted.
ALTER TABLE proofs ADD COLUMN clean_share REAL;
ALTER TABLE proofs ADD COLUMN clean_grain REAL;
ALTER TABLE proofs ADD COLUMN clean_note TEXT;
