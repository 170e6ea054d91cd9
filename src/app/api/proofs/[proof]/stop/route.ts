import { StopProofBody } from '../../../../../contracts/requests';
import { continueProof, stopProof } from '../../../../../server/usecases/stop-proof';
import { mutation } from '../../../respond';

export const POST = mutation(StopProofBody, ({ how }, { proof }: { proof: string }) =>
  how === 'continue' ? continueProof(proof) : stopProof(proof)
);
