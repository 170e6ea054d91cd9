import { SaveViewpointBody } from '../../../../../contracts/requests';
import { saveViewpoint } from '../../../../../server/usecases/save-viewpoint';
import { mutation } from '../../../respond';

export const POST = mutation(SaveViewpointBody, ({ name, viewpoint }, { project }: { project: string }) =>
  saveViewpoint(project, name, viewpoint)
);
