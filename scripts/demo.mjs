// npm run demo: installs, builds, starts, prints the address, and then makes the demo data once: models, projects and
// small proofs come in while one watches.
import { join } from 'node:path';
import { build } from './build.mjs';
import { root } from './install.mjs';
import { Processes } from './processes.mjs';

const port = Number(process.env.PORT ?? 4300);
await build();
const processes = new Processes({ SPHAERA_DATA: process.env.SPHAERA_DATA ?? join(root, 'data', 'demo') });
processes.keepServices();
await processes.web(port);
console.log(`Sphaera is ready: http://127.0.0.1:${port}. Its demo projects come in there.`);
const code = await processes.run([join(root, 'build/seed.mjs')]);
if (code !== 0 && !processes.ending) console.error('the demo data could not be made; see above');
