import { measureCostsOf } from '../../../../../server/usecases/measure-costs';
import { badJson, foreign, readJson, tell } from '../../../respond';

/** Measures what costs time in the brief that is sent, and tells how far it is; ends when the one who asked goes. */
export async function POST(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body) return badJson();
  const { project } = await params;
  return tell(request, (news, stop) => measureCostsOf(project, body.brief, news, stop));
}
