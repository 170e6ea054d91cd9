/** Writes the masks of a film as pictures: flat colours of parts and of materials, and the coverage of each. */
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { serveTask } from '../jobs/serve-task';
import { openFinishedFilm } from '../render/finished-film';
import { maskFiles } from '../render/mask-files';

serveTask('masks', async ({ proof, film: hash, width, height, out }) => {
  const { film, layers } = await openFinishedFilm(proof, hash, width, height, false);
  await mkdir(out, { recursive: true });
  const names: string[] = [];
  for await (const { name, bytes } of maskFiles({ film, layers, width, height })) {
    await writeFile(join(out, `delivery-${names.length}`), bytes);
    names.push(name);
  }
  return names;
});
