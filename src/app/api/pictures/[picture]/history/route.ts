import { moveStep } from '../../../../../server/usecases/change-brief';
import { answer, badJson, foreign, readJson } from '../../../respond';

export async function POST(request: Request, { params }: { params: Promise<{ picture: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  return body ? answer(moveStep((await params).picture, body.by === 1 ? 1 : -1)) : badJson();
}
