import { DESK_PAGE } from '../../../contracts/paging';
import { viewDesk } from '../../../server/usecases/view-desk';
import { query } from '../respond';

export const dynamic = 'force-dynamic';

/** The desk with at most so many projects. */
export const GET = query((asked) => {
  const limit = Number(asked.get('projects'));
  return viewDesk(Number.isInteger(limit) && limit > 0 ? limit : DESK_PAGE);
});
