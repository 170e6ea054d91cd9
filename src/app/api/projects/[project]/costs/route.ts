import { BriefBody } from '../../../../../contracts/requests';
import { measureCostsOf } from '../../../../../server/usecases/measure-costs';
import { mutation, reportProgress } from '../../../respond';

/** Measures what costs time in the brief that is sent, and reports how far it is; ends when the one who asked goes. */
export const POST = mutation(BriefBody, ({ brief }, { project }: { project: string }, request) =>
  reportProgress(request, (progress, stop) => measureCostsOf(project, brief, progress, stop))
);
