import { changeBrief } from '../../../../../server/usecases/change-brief';
import { answer, badJson, foreign, readJson } from '../../../respond';

export async function PUT(request: Request, { params }: { params: Promise<{ picture: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  return body ? answer(changeBrief((await params).picture, body.brief, body.joins === true)) : badJson();
}
