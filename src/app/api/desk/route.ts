import { viewDesk } from '../../../server/usecases/view-desk';

export const dynamic = 'force-dynamic';

export const GET = () => Response.json(viewDesk(), { headers: { 'Cache-Control': 'no-store' } });
