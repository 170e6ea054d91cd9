/** Reads model files, isolated: a file that breaks the reader breaks this process alone. */
import { readFile, writeFile } from 'node:fs/promises';
import { readModel, recognise } from '../../formats/model';
import { normaliseModel } from '../../formats/model/normalise';
import { examine, guessOf } from '../../formats/model/recognition';
import { serveTask } from '../jobs/serve-task';
import { unrepairedBeside } from '../jobs/tasks';

serveTask('import', async ({ files: paths, maxBytes, as }) => {
  const files = await Promise.all(
    paths.map(async ({ name, path }) => ({ name, bytes: new Uint8Array(await readFile(path)) }))
  );
  const recognised = recognise(files, maxBytes);
  if (as === null) return { recognition: await examine(recognised) };
  const { states, meshed } = recognised.reader;
  const model = await readModel(recognised, { fineness: as.fineness });
  const guess = guessOf(model.document, states);
  const read = { unit: as.unit ?? states.unit ?? guess.unit, up: as.up ?? states.up ?? guess.up };
  if ((as.unit === null && !states.unit) || (as.up === null && !states.up))
    model.changed.push(
      `The file does not say its unit and axis: it was read as ${read.unit} with ` +
        `${read.up.toUpperCase()} up, guessed from its size`
    );
  const { glb, unrepaired, report } = await normaliseModel(model, { ...read, from: as.from, repairs: as.repairs });
  await writeFile(as.out, glb);
  if (unrepaired) await writeFile(unrepairedBeside(as.out), unrepaired);
  return { unrepaired: unrepaired !== null, report: meshed ? { ...report, fineness: as.fineness } : report };
});
