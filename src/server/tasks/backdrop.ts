/** Reads a picture that is to stand behind models, and writes it upright and in sRGB, as PNG. */
import { writeFile } from 'node:fs/promises';
import { normaliseBackdrop } from '../../formats/image/backdrop';
import { serveTask } from '../jobs/serve-task';

serveTask('backdrop', async ({ path, out }) => {
  const { png, width, height } = await normaliseBackdrop(path);
  await writeFile(out, png);
  return { width, height };
});
