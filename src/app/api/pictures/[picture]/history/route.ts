import { MoveStepBody } from '../../../../../contracts/requests';
import { moveStep } from '../../../../../server/usecases/change-brief';
import { mutation } from '../../../respond';

export const POST = mutation(MoveStepBody, ({ by }, { picture }: { picture: string }) => moveStep(picture, by));
