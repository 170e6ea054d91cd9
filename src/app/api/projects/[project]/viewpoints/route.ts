import { saveViewpoint } from '../../../../../server/usecases/save-viewpoint';
import { answer, badJson, foreign, readJson } from '../../../respond';

export async function POST(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  return body ? answer(saveViewpoint((await params).project, String(body.name ?? ''), body.viewpoint)) : badJson();
}
