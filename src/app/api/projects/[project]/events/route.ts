import { viewWorkspace } from '../../../../../server/usecases/view-workspace';
import { events } from '../../../respond';

export const dynamic = 'force-dynamic';

export async function GET(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const { project } = await params;
  if (!viewWorkspace(project)) return new Response(null, { status: 404 });
  return events(request, () => {
    const view = viewWorkspace(project);
    return view && { proofs: view.proofs, pictures: view.pictures, machine: view.machine, rendering: view.rendering };
  });
}
