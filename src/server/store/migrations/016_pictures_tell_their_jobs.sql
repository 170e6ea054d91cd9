-- The list of pictures tells of each whether a proof of it renders or waits.
DROP TRIGGER jobs_added;
CREATE TRIGGER jobs_added AFTER INSERT ON jobs BEGIN
  UPDATE stamps SET number = number + 1;
  UPDATE proofs SET stamp = stamp WHERE id = NEW.proof_id;
  UPDATE pictures SET stamp = stamp WHERE id = (SELECT picture_id FROM proofs WHERE id = NEW.proof_id);
END;
DROP TRIGGER jobs_moved;
CREATE TRIGGER jobs_moved AFTER UPDATE ON jobs WHEN OLD.state <> NEW.state OR OLD.stop IS NOT NEW.stop BEGIN
  UPDATE stamps SET number = number + 1;
  UPDATE proofs SET stamp = stamp WHERE id = NEW.proof_id;
  UPDATE pictures SET stamp = stamp WHERE id = (SELECT picture_id FROM proofs WHERE id = NEW.proof_id);
END;
CREATE INDEX IF NOT EXISTS jobs_by_proof ON jobs (proof_id);
CREATE INDEX IF NOT EXISTS pictures_by_project ON pictures (project_id, position);
