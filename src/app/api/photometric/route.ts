import { UploadBody } from '../../../contracts/requests';
import { addPhotometric } from '../../../server/usecases/add-photometric';
import { mutation } from '../respond';

export const POST = mutation(UploadBody, ({ upload, name }, _, { signal }) => addPhotometric(upload, name, signal));
