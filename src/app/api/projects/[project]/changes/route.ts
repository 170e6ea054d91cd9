import { viewChanges } from '../../../../../server/usecases/view-workspace';

export const dynamic = 'force-dynamic';

/** What changed after a change that the page has seen. */
export async function GET(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const since = Number(new URL(request.url).searchParams.get('since'));
  const changes = viewChanges((await params).project, Number.isFinite(since) ? since : 0);
  if (!changes) return Response.json({ code: 'gone', message: 'this project is no longer there' }, { status: 404 });
  return Response.json(changes, { headers: { 'Cache-Control': 'no-store' } });
}
