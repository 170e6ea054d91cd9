/** Reads model files, isolated: a file that breaks the reader breaks this process alone. */
import { readFile, writeFile } from 'node:fs/promises';
import { normaliseModel } from '../../formats/gltf/normalise';
import { serveTask } from '../jobs/serve-task';

serveTask('import', async ({ files: paths, unit, up, maxBytes, out }) => {
  const files = await Promise.all(
    paths.map(async ({ name, path }) => ({ name, bytes: new Uint8Array(await readFile(path)) }))
  );
  const { glb, report } = await normaliseModel(files, { unit, up, mostBytes: maxBytes });
  await writeFile(out, glb);
  return { report };
});
