/** Renders a material on its small object. */
import { readFileMaterial } from '../../formats/gltf/file-material';
import { contentPath } from '../files/content-store';
import { serveTask } from '../jobs/serve-task';
import { loadKernel } from '../render/kernel-file';
import { swatchOf } from '../render/swatch';

serveTask('swatch', async ({ of, ...rule }) => {
  const file = of && (await readFileMaterial(contentPath('models', of.model), of.name));
  if (of && !file) throw new RangeError(`the model has no material "${of.name}"`);
  return swatchOf(rule, await loadKernel(), file);
});
