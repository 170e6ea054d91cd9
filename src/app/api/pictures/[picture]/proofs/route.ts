import { RequestProofBody } from '../../../../../contracts/requests';
import { parsePatch } from '../../../../../contracts/brief';
import { requestProof } from '../../../../../server/usecases/request-proof';
import { mutation } from '../../../respond';

/** `patch`: of that rectangle alone; `saving`: with something less, as it was measured. */
export const POST = mutation(RequestProofBody, (body, { picture }: { picture: string }) => {
  const patch = parsePatch(body.patch);
  return patch.ok ? requestProof(picture, patch.value, body.saving) : patch;
});
