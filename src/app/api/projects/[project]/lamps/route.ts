import { BriefBody } from '../../../../../contracts/requests';
import { measureLampsOf } from '../../../../../server/usecases/measure-lamps';
import { mutation } from '../../../respond';

/** Measures what each group of lamps contributes to the brief that is sent. */
export const POST = mutation(BriefBody, ({ brief }, { project }: { project: string }) =>
  measureLampsOf(project, brief)
);
