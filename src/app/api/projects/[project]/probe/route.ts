import { probePicture } from '../../../../../server/usecases/probe-picture';
import { answer, badJson, foreign, readJson } from '../../../respond';

/** Measures what a forecast of the brief that is sent is reckoned from. */
export async function POST(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body) return badJson();
  return answer(await probePicture((await params).project, body.brief));
}
