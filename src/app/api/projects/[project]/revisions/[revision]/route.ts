import { NoBody } from '../../../../../../contracts/requests';
import { restoreRevision } from '../../../../../../server/usecases/bring-revision';
import { mutation } from '../../../../respond';

/** Makes an earlier revision the newest again. */
export const POST = mutation(NoBody, (_, { project, revision }: { project: string; revision: string }) =>
  restoreRevision(project, revision)
);
