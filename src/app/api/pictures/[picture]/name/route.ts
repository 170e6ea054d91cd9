import { NameBody } from '../../../../../contracts/requests';
import { rename } from '../../../../../server/usecases/change-brief';
import { mutation } from '../../../respond';

export const PUT = mutation(NameBody, ({ name }, { picture }: { picture: string }) => rename(picture, name));
