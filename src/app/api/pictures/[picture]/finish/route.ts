import { NoBody } from '../../../../../contracts/requests';
import { giveFinish } from '../../../../../server/usecases/give-finish';
import { mutation } from '../../../respond';

/** Gives its finish to all other pictures of the project. */
export const POST = mutation(NoBody, (_body, { picture }: { picture: string }) => giveFinish(picture));
