import { requestProof } from '../../../../../server/usecases/request-proof';
import { answer, foreign } from '../../../respond';

export async function POST(request: Request, { params }: { params: Promise<{ picture: string }> }) {
  return foreign(request) ?? answer(requestProof((await params).picture));
}
