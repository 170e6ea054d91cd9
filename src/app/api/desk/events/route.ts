import { deskStamp } from '../../../../server/usecases/view-desk';
import { events } from '../../respond';

export const dynamic = 'force-dynamic';

/** Tells when something that the desk shows has changed. */
export const GET = (request: Request) => events(request, deskStamp, 1000);
