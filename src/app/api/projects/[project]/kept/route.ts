import { keepPart } from '../../../../../server/usecases/keep-part';
import { answer, badJson, foreign, readJson } from '../../../respond';

export async function POST(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  return body ? answer(keepPart((await params).project, body.kind, String(body.name ?? ''), body.brief)) : badJson();
}
