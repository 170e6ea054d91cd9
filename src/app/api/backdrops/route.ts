import { UploadBody } from '../../../contracts/requests';
import { addBackdrop } from '../../../server/usecases/add-backdrop';
import { mutation } from '../respond';

export const POST = mutation(UploadBody, ({ upload, name }, _, { signal }) => addBackdrop(upload, name, signal));
