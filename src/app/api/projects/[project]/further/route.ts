import { RecogniseBody } from '../../../../../contracts/requests';
import { addFurtherModel } from '../../../../../server/usecases/add-further-model';
import { mutation } from '../../../respond';

/** Brings a model in that can be placed in the project's pictures. */
export const POST = mutation(RecogniseBody, ({ files }, { project }: { project: string }, { signal }) =>
  addFurtherModel(project, files, signal)
);
