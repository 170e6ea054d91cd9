import { CropBody } from '../../../../../contracts/requests';
import { viewCrop } from '../../../../../server/usecases/view-crop';
import { mutation } from '../../../respond';

/** A detail of the picture as the brief that is sent would have it, about a place in shares of its sides. */
export const POST = mutation(CropBody, ({ brief, x, y }, { project }: { project: string }) =>
  viewCrop(project, brief, { x, y })
);
