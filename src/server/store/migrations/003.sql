-- Share of the scattered light that the firefly limit took.
ALTER TABLE proofs ADD COLUMN limited_share REAL;
