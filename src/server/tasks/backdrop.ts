/** Reads a picture of one's own, and writes it upright and in sRGB, as PNG. */
import { writeFile } from 'node:fs/promises';
import { normaliseBackdrop } from '../../formats/image/backdrop';
import { serveTask } from '../jobs/serve-task';

serveTask('backdrop', async ({ path, out, purpose }) => {
  const { png, width, height } = await normaliseBackdrop(path, purpose === 'surface');
  await writeFile(out, png);
  return { width, height };
});
