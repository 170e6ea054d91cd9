import { CapturedBody } from '../../../contracts/requests';
import { addCaptured } from '../../../server/usecases/add-captured';
import { mutation } from '../respond';

export const POST = mutation(CapturedBody, ({ upload, name, reduce }, _, { signal }) =>
  addCaptured(upload, name, reduce, signal)
);
