import { ChangeBriefBody } from '../../../../../contracts/requests';
import { changeBrief } from '../../../../../server/usecases/change-brief';
import { mutation } from '../../../respond';

export const PUT = mutation(ChangeBriefBody, ({ brief, joins, from }, { picture }: { picture: string }) =>
  changeBrief(picture, brief, joins, from)
);
