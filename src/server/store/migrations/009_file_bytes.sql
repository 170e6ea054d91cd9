-- Of a proof's picture as it is handed over, bytes a pixel, as JSON by kind of file; measured on the picture for the screen.
ALTER TABLE proofs ADD COLUMN file_bytes_json TEXT;
