/** Renders one proof; started and watched by the render service. */
import { serveTask } from '../jobs/serve-task';
import { openProofWork } from '../render/proof-work';
import { renderProof } from '../render/render-proof';
import { whileLeased } from '../render/while-leased';

serveTask('render', ({ proof, lease }, context) =>
  whileLeased(() => renderProof(openProofWork(proof, lease, context)))
);
