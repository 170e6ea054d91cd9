import { RevisionBody } from '../../../../../contracts/requests';
import { bringRevision, restoreRevision } from '../../../../../server/usecases/bring-revision';
import { mutation } from '../../../respond';

/** Brings a newer file in, or makes an earlier revision the newest again. */
export const POST = mutation(RevisionBody, ({ files, restore }, { project }: { project: string }, { signal }) =>
  restore === undefined ? bringRevision(project, files, signal) : restoreRevision(project, restore)
);
