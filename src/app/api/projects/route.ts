import { NewProjectBody } from '../../../contracts/requests';
import { createProject } from '../../../server/usecases/create-project';
import { mutation } from '../respond';

export const POST = mutation(NewProjectBody, (body, _, { signal }) => createProject(body, signal));
