import { viewChanges } from '../../../../../server/usecases/view-workspace';
import { query } from '../../../respond';

export const dynamic = 'force-dynamic';

/** What changed after a change that the page has seen. */
export const GET = query((asked, { project }: { project: string }) => {
  const since = Number(asked.get('since'));
  return viewChanges(project, asked.get('picture') ?? '', Number.isFinite(since) ? since : 0);
}, 'this project is no longer there; go back to the desk');
