import { FinenessBody } from '../../../../../contracts/requests';
import { remeshModel } from '../../../../../server/usecases/read-model-again';
import { mutation } from '../../../respond';

/** Meshes the solids of the model finer or coarser. */
export const POST = mutation(FinenessBody, ({ fineness }, { project }: { project: string }, { signal }) =>
  remeshModel(project, fineness, signal)
);
