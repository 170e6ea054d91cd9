import { viewCrop } from '../../../../../server/usecases/view-crop';
import { answer, badJson, foreign, readJson } from '../../../respond';

/** A piece of the picture as the brief that is sent would have it, about a place in shares of its sides. */
export async function POST(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  const [x, y] = [Number(body?.x), Number(body?.y)];
  if (!body || !(x >= 0 && x <= 1 && y >= 0 && y <= 1)) return badJson();
  return answer(await viewCrop((await params).project, body.brief, { x, y }));
}
