import { measureLampsOf } from '../../../../../server/usecases/measure-lamps';
import { answer, badJson, foreign, readJson } from '../../../respond';

/** Measures what each group of lamps brings to the brief that is sent. */
export async function POST(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body) return badJson();
  return answer(await measureLampsOf((await params).project, body.brief));
}
