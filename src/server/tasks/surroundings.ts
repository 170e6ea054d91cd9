/** Renders the small scene under saved surroundings. */
import { readSurroundings } from '../../core/brief/read-brief';
import { serveTask } from '../jobs/serve-task';
import { readCapturedOf } from '../render/captured-file';
import { loadKernel } from '../render/kernel-file';
import { previewOf } from '../render/surroundings-preview';

serveTask('surroundings', async ({ surroundings: saved }) => {
  const surroundings = readSurroundings(saved);
  return previewOf(surroundings, await readCapturedOf(surroundings), await loadKernel());
});
