import { MaterialsBody } from '../../../../../contracts/requests';
import { giveToAllPictures } from '../../../../../server/usecases/project-materials';
import { mutation } from '../../../respond';

/** Rules of materials for all pictures of a project. */
export const PUT = mutation(MaterialsBody, ({ materials }, { project }: { project: string }) =>
  giveToAllPictures(project, materials)
);
