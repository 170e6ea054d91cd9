import { RemovalBody } from '../../../contracts/requests';
import { restore } from '../../../server/usecases/remove';
import { mutation } from '../respond';

/** Brings back what was removed within the last ten minutes. */
export const POST = mutation(RemovalBody, ({ kind, id }) => restore(kind, id));
