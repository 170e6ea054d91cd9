import { RenameBody } from '../../../contracts/requests';
import { rename } from '../../../server/usecases/remove';
import { mutation } from '../respond';

export const PUT = mutation(RenameBody, ({ kind, id, name }) => rename(kind, id, name));
