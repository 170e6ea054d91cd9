/** Stops the work on a proof, which keeps what there is of it, and continues it. Nothing is lost by either. */
import { ok, refused, type Result } from '../../core/result/result';
import { database } from '../store/database';
import { sqliteQueue as queue } from '../store/job-queue';
import { findPicture } from '../store/pictures';
import { findProof, haltProof, reopenProof } from '../store/proofs';
import { readBrief } from '../../core/brief/read-brief';
import { newId } from './identify';

const gone = () => refused('this proof is no longer there; reload the page', 'gone');

/** Ends a render early: what is rendered so far becomes an unfinished proof. */
export function stopProof(id: string, now = Date.now()): Result<null> {
  return database()
    .transaction((): Result<null> => {
      const proof = findProof(id);
      if (!proof) return gone();
      const job = proof.state === 'open' ? queue.ofProof(id) : null;
      if (!job) return ok(null);
      queue.apply(job.id, { type: 'request stop', mode: 'keep', now });
      // what runs is ended by who runs it
      if (queue.find(job.id)?.state.name !== 'running') haltProof(id, now);
      return ok(null);
    })
    .immediate();
}

/** Goes on with a render that was stopped or failed, from where it was. */
export function continueProof(id: string, now = Date.now()): Result<null> {
  return database()
    .transaction((): Result<null> => {
      const proof = findProof(id);
      if (!proof) return gone();
      const reopened = reopenProof(id);
      const job = queue.ofProof(id);
      if (job?.state.name === 'failed' || job?.state.name === 'stopped') queue.apply(job.id, { type: 'retry' });
      // its job was swept, or is just being ended by who ran it
      else if (reopened) {
        const kind = readBrief(proof.brief_json).patch ? 'patch' : 'render';
        queue.enqueue({ id: newId(), kind, project: findPicture(proof.picture_id)!.project_id, proof: id, now });
      }
      return ok(null);
    })
    .immediate();
}
