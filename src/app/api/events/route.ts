import { changeStamps, changeVersion } from '../../../server/usecases/watch-changes';
import { changeEvents, isCrossOriginStream, CROSS_ORIGIN } from '../respond';

export const dynamic = 'force-dynamic';

/** Tells which projects, or the desk, have changed; what, a page asks for. One stream serves all tabs of a browser. */
export function GET(request: Request) {
  if (isCrossOriginStream(request)) return Response.json(CROSS_ORIGIN, { status: 403 });
  return changeEvents(request, changeVersion, changeStamps);
}
