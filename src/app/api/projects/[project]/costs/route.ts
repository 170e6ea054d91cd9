import { measureCostsOf } from '../../../../../server/usecases/measure-costs';
import { answer, badJson, foreign, readJson } from '../../../respond';

/** Measures what costs time in the brief that is sent. */
export async function POST(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body) return badJson();
  return answer(await measureCostsOf((await params).project, body.brief));
}
