import { parsePatch } from '../../../../../contracts/brief';
import { refused } from '../../../../../core/result/result';
import { requestProof } from '../../../../../server/usecases/request-proof';
import { answer, badJson, foreign, readJson } from '../../../respond';

/** `patch` in the body: of that rectangle alone; `saving`: with something less, as it was measured. */
export async function POST(request: Request, { params }: { params: Promise<{ picture: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body) return badJson();
  const patch = parsePatch(body.patch);
  return answer(
    patch.ok
      ? requestProof((await params).picture, patch.value, body.saving ?? null)
      : refused(patch.message, 'bad_brief')
  );
}
