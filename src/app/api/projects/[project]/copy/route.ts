import { NoBody } from '../../../../../contracts/requests';
import { duplicateProject } from '../../../../../server/usecases/duplicate-project';
import { mutation } from '../../../respond';

export const POST = mutation(NoBody, (_, { project }: { project: string }) => duplicateProject(project));
