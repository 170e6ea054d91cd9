/** Renders a material on its small object. */
import { serveTask } from '../jobs/serve-task';
import { loadKernel } from '../render/kernel-file';
import { swatchOf } from '../render/swatch';

serveTask('swatch', async (rule) => swatchOf(rule, await loadKernel()));
