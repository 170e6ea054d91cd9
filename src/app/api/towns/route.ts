import { findTowns } from '../../../server/usecases/find-towns';
import { query } from '../respond';

export const dynamic = 'force-dynamic';

/** Towns whose name begins with a text. */
export const GET = query((asked) => ({ towns: findTowns((asked.get('name') ?? '').slice(0, 100)) }));
