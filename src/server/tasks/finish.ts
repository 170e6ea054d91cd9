/** Develops one proof whose film is there; started and watched by the render service. */
import { serveTask } from '../jobs/serve-task';
import { finishProof } from '../render/finish-proof';
import { openProofWork } from '../render/proof-work';
import { whileLeased } from '../render/while-leased';

serveTask('finish', ({ proof, lease }, context) =>
  whileLeased(() => finishProof(openProofWork(proof, lease, context)))
);
