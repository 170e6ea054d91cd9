import { setUpPreview } from '../../../../../server/usecases/set-up-preview';
import { answer, badJson, foreign, readJson } from '../../../respond';

export async function POST(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body) return badJson();
  const { brief, width, height, pack, rig, light, exact } = body;
  const setup = await setUpPreview((await params).project, { brief, width, height, pack, rig, light, exact });
  return setup.ok
    ? new Response(setup.value as BodyInit, {
        headers: { 'Content-Type': 'application/octet-stream', 'Cache-Control': 'no-store' }
      })
    : answer(setup);
}
