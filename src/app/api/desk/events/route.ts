import { viewDesk } from '../../../../server/usecases/view-desk';
import { events } from '../../respond';

export const dynamic = 'force-dynamic';

export const GET = (request: Request) => events(request, viewDesk, 1000);
