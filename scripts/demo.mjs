// npm run demo: installs, builds, makes the demo data once (models, projects, small proofs), starts, and prints the
// address.
import { join } from 'node:path';
import { build } from './build.mjs';
import { root } from './install.mjs';
import { Processes } from './processes.mjs';

const port = Number(process.env.PORT ?? 4300);
await build();
const processes = new Processes({ SPHAERA_DATA: process.env.SPHAERA_DATA ?? join(root, 'data', 'demo') });
processes.keepRenderService();
const code = await processes.run([join(root, 'build/seed.mjs')]);
if (processes.ending) process.exit(0);
if (code !== 0) {
  console.error('the demo data could not be made; see above');
  processes.end(1);
} else {
  await processes.web(port);
  console.log(`Sphaera is ready with its demo data: http://127.0.0.1:${port}`);
}
