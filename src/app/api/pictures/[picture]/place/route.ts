import { MoveStepBody } from '../../../../../contracts/requests';
import { movePicture } from '../../../../../server/usecases/move-picture';
import { mutation } from '../../../respond';

/** One place up (-1) or down (1) among the pictures of its project. */
export const POST = mutation(MoveStepBody, ({ by }, { picture }: { picture: string }) => movePicture(picture, by));
