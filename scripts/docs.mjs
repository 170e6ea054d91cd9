// npm run docs: writes the pages that are made from the code. A unit test fails while one is out of date.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root } from './install.mjs';

ensureInstalled();
const { build } = await import('esbuild');
const outfile = join(root, 'build', 'brief-page.mjs');
await build({
  entryPoints: [join(root, 'src/core/brief/brief-page.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  logLevel: 'warning'
});
const { briefPage } = await import(outfile);
writeFileSync(join(root, 'docs/brief.md'), briefPage());
console.log('docs/brief.md');
