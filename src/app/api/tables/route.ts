import { UploadBody } from '../../../contracts/requests';
import { addTable } from '../../../server/usecases/add-table';
import { mutation } from '../respond';

export const POST = mutation(UploadBody, ({ upload, name }) => addTable(upload, name));
