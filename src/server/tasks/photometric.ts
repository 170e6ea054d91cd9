/** Reads a photometric file: what its lamp gives, and its polar curve. */
import { readFile } from 'node:fs/promises';
import { polarCurve, resampleWeb, webFlux } from '../../core/lights/web/web';
import { readPhotometric } from '../../formats/photometry/read-photometric';
import { serveTask } from '../jobs/serve-task';

serveTask('photometric', async ({ path }) => {
  const { web: measured, watts, name } = readPhotometric(new Uint8Array(await readFile(path)));
  const web = resampleWeb(measured);
  return { name, watts, lumen: webFlux(web), curve: polarCurve(web) };
});
