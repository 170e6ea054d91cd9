import { workspaceStamp } from '../../../../../server/usecases/view-workspace';
import { events } from '../../../respond';

export const dynamic = 'force-dynamic';

/** Tells when something of the project has changed; what, the page asks for. */
export async function GET(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const { project } = await params;
  if (workspaceStamp(project) === 0) return new Response(null, { status: 404 });
  return events(request, () => workspaceStamp(project));
}
