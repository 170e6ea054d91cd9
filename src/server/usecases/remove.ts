/**
 * Removes things, brings them back within ten minutes, and renames them. What renders of a removed picture stops and is
 * kept unfinished, so that bringing it back loses nothing.
 */
import { type RemovableKind, type Removed, REMOVABLE_KINDS, RESTORABLE_MS } from '../../core/catalogue/removable';
import { ok, refused, type Result } from '../../core/result/result';
import { database } from '../store/database';
import { sqliteQueue as queue } from '../store/job-queue';
import { countPictures, findPicture } from '../store/pictures';
import { haltProof } from '../store/proofs';
import {
  listRemoved,
  markRemoved,
  nameOf,
  pictureWithFile,
  proofsUnder,
  setName,
  unmarkRemoved
} from '../store/removal';

const gone = () => refused('it is no longer there; reload the page', 'gone');
const isFile = (kind: RemovableKind) => kind === 'captured' || kind === 'photometric' || kind === 'backdrop';

export function remove(kind: RemovableKind, id: string, now = Date.now()): Result<Removed> {
  return database()
    .transaction((): Result<Removed> => {
      const name = nameOf(kind, id);
      if (name === null) return gone();
      if (kind === 'picture' && countPictures(findPicture(id)!.project_id) === 1)
        return refused('a project needs a picture; remove the whole project on the desk, or add a picture first');
      const user = isFile(kind) ? pictureWithFile(id) : null;
      if (user !== null)
        return refused(`the picture “${user}” or one of its proofs uses ${name}; choose another there first`, 'in_use');
      for (const proof of proofsUnder(kind, id)) halt(proof, now);
      markRemoved(kind, id, now);
      return ok({ kind, id, name, removed_at_ms: now });
    })
    .immediate();
}

/** Ends the work on a proof at once; what is rendered stays, as an unfinished proof. */
function halt(proof: string, now: number): void {
  const job = queue.ofProof(proof);
  if (job?.state.name === 'running') queue.apply(job.id, { type: 'request stop', mode: 'drop', now });
  else {
    if (job?.state.name === 'waiting') queue.apply(job.id, { type: 'request stop', mode: 'drop', now });
    haltProof(proof, now);
  }
}

export function restore(kind: RemovableKind, id: string): Result<null> {
  return unmarkRemoved(kind, id)
    ? ok(null)
    : refused('it was removed more than ten minutes ago and is deleted', 'gone');
}

/** What can still be brought back, the last removed first. */
export function viewRemoved(now = Date.now()): Removed[] {
  return REMOVABLE_KINDS.flatMap((kind) => listRemoved(kind, now, now - RESTORABLE_MS)).sort(
    (a, b) => b.removed_at_ms - a.removed_at_ms
  );
}

export function rename(kind: RemovableKind, id: string, name: string): Result<{ name: string }> {
  const plain = name.trim().slice(0, 120);
  if (kind === 'proof') return refused('proofs are numbered and have no name');
  if (!plain) return refused('give it a name');
  if (nameOf(kind, id) === null) return gone();
  setName(kind, id, plain);
  return ok({ name: plain });
}
