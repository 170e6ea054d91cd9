-- Share of the indirect light that the firefly limit took.
ALTER TABLE proofs ADD COLUMN limited_share REAL;
