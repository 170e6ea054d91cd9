import { ReadAsBody } from '../../../../../contracts/requests';
import { rescaleModel } from '../../../../../server/usecases/rescale-model';
import { mutation } from '../../../respond';

/** Corrects the unit or the upright axis that the model was read as. */
export const POST = mutation(ReadAsBody, ({ unit, up }, { project }: { project: string }, { signal }) =>
  rescaleModel(project, { unit, up }, signal)
);
