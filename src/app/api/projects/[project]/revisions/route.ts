import { RecogniseBody } from '../../../../../contracts/requests';
import { bringRevision } from '../../../../../server/usecases/bring-revision';
import { mutation } from '../../../respond';

/** Brings a newer file of the model in. */
export const POST = mutation(RecogniseBody, ({ files }, { project }: { project: string }, { signal }) =>
  bringRevision(project, files, signal)
);
