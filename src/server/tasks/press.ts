/** Reads the ICC profile of a press and writes what it makes of colours. */
import { readFile, rename, writeFile } from 'node:fs/promises';
import { packPress } from '../../core/finishing/press-proof';
import { Refusal } from '../../core/result/result';
import { readPressProfile } from '../../formats/icc/read-icc';
import { pressColours } from '../../formats/image/press';
import { serveTask } from '../jobs/serve-task';

serveTask('press', async ({ path, out }) => {
  try {
    const { name } = readPressProfile(new Uint8Array(await readFile(path)));
    const colours = await pressColours(path);
    await writeFile(`${out}.part`, packPress(colours));
    await rename(`${out}.part`, out);
    return { name };
  } catch (error) {
    // what the colour engine says of a profile is no sentence for people
    throw error instanceof RangeError
      ? new Refusal('refused', error.message)
      : new Refusal('refused', 'its tables cannot be read; ask your printer for the profile again');
  }
});
