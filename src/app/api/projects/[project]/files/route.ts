import { RecogniseBody } from '../../../../../contracts/requests';
import { completeModel } from '../../../../../server/usecases/read-model-again';
import { mutation } from '../../../respond';

/** Adds files that the model asks for. */
export const POST = mutation(RecogniseBody, ({ files }, { project }: { project: string }, { signal }) =>
  completeModel(project, files, signal)
);
