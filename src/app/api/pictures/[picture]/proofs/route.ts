import { RequestProofBody } from '../../../../../contracts/requests';
import { parsePatch } from '../../../../../contracts/brief';
import { finishProofOf, requestProof } from '../../../../../server/usecases/request-proof';
import { viewProofs } from '../../../../../server/usecases/view-workspace';
import { mutation, query } from '../../../respond';

export const dynamic = 'force-dynamic';

/** Older proofs than the one of a number. */
export const GET = query((asked, { picture }: { picture: string }) => {
  const before = Number(asked.get('before'));
  return Number.isInteger(before) ? viewProofs(picture, before) : null;
}, 'ask for the proofs before a number');

/**
 * `of`: the film of that proof, finished as the picture is by now. `patch`: of that rectangle alone; `saving`: with something
 * less, as it was measured.
 */
export const POST = mutation(RequestProofBody, (body, { picture }: { picture: string }) => {
  if (body.of !== null) return finishProofOf(picture, body.of);
  const patch = parsePatch(body.patch);
  return patch.ok ? requestProof(picture, patch.value, body.saving) : patch;
});
