/** Reads model files, isolated: a file that breaks the reader breaks this process alone. */
import { readFile, writeFile } from 'node:fs/promises';
import { readModel, recognise } from '../../formats/model';
import { normaliseModel } from '../../formats/model/normalise';
import { examine } from '../../formats/model/recognition';
import { serveTask } from '../jobs/serve-task';

serveTask('import', async ({ files: paths, maxBytes, as }) => {
  const files = await Promise.all(
    paths.map(async ({ name, path }) => ({ name, bytes: new Uint8Array(await readFile(path)) }))
  );
  const recognised = recognise(files, maxBytes);
  if (as === null) return { recognition: await examine(recognised) };
  const { unit = 'm', up = 'y' } = recognised.reader.states;
  const model = await readModel(recognised);
  const { glb, report } = await normaliseModel(model, {
    unit: as.unit ?? unit,
    up: as.up ?? up,
    from: as.from
  });
  await writeFile(as.out, glb);
  return { report };
});
