import { goOn, stopProof } from '../../../../../server/usecases/request-proof';
import { answer, badJson, foreign, readJson } from '../../../respond';

export async function POST(request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body) return badJson();
  const { proof } = await params;
  return answer(body.how === 'go on' ? goOn(proof) : stopProof(proof, body.how === 'drop' ? 'drop' : 'keep'));
}
