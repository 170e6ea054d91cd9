import { RemovalBody } from '../../../contracts/requests';
import { remove } from '../../../server/usecases/remove';
import { mutation } from '../respond';

export const POST = mutation(RemovalBody, ({ kind, id }) => remove(kind, id));
