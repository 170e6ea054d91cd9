import { UploadBody } from '../../../contracts/requests';
import { addPressProfile } from '../../../server/usecases/press-profiles';
import { mutation } from '../respond';

export const POST = mutation(UploadBody, ({ upload, name }) => addPressProfile(upload, name));
