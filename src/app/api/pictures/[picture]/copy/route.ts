import { NoBody } from '../../../../../contracts/requests';
import { addPicture } from '../../../../../server/usecases/add-picture';
import { mutation } from '../../../respond';

export const POST = mutation(NoBody, (_, { picture }: { picture: string }) => addPicture(picture));
