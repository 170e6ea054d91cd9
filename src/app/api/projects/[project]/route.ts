import { viewWorkspace } from '../../../../server/usecases/view-workspace';
import { query } from '../../respond';

export const dynamic = 'force-dynamic';

/** A project with a picture in hand. */
export const GET = query(
  (asked, { project }: { project: string }) => viewWorkspace(project, asked.get('picture')),
  'this project is no longer there; go back to the desk'
);
