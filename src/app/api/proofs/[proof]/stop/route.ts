import { StopProofBody } from '../../../../../contracts/requests';
import { goOn, stopProof } from '../../../../../server/usecases/request-proof';
import { mutation } from '../../../respond';

export const POST = mutation(StopProofBody, ({ how }, { proof }: { proof: string }) =>
  how === 'go on' ? goOn(proof) : stopProof(proof, how)
);
