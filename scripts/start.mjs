// npm start: builds what is missing and runs the application on the data in data/ (or SPHAERA_DATA). --dev for the
// development server.
import { build } from './build.mjs';
import { ownData } from './install.mjs';
import { Processes } from './processes.mjs';

const dev = process.argv.includes('--dev');
const port = Number(process.env.PORT ?? 4300);
await build(dev ? ['kernel', 'bundles'] : undefined);
const processes = new Processes({ SPHAERA_DATA: process.env.SPHAERA_DATA ?? ownData });
processes.keepServices();
await processes.web(port, dev);
console.log(`Sphaera is ready: http://127.0.0.1:${port}`);
