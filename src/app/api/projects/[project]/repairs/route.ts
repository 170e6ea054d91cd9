import { RepairsBody } from '../../../../../contracts/requests';
import { repairModel } from '../../../../../server/usecases/read-model-again';
import { mutation } from '../../../respond';

/** Which repairs of the model are done; all others are undone. */
export const POST = mutation(RepairsBody, ({ repairs }, { project }: { project: string }, { signal }) =>
  repairModel(project, repairs, signal)
);
