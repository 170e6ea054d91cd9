import { SavePartBody } from '../../../../../contracts/requests';
import { keepPart } from '../../../../../server/usecases/keep-part';
import { mutation } from '../../../respond';

export const POST = mutation(SavePartBody, ({ kind, name, brief }, { project }: { project: string }) =>
  keepPart(project, kind, name, brief)
);
