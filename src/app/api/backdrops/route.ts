import { PictureBody } from '../../../contracts/requests';
import { addBackdrop } from '../../../server/usecases/add-backdrop';
import { mutation } from '../respond';

export const POST = mutation(PictureBody, ({ upload, name, purpose }, _, { signal }) =>
  addBackdrop(upload, name, purpose, signal)
);
