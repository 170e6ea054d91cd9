// Checks who imports whom (rules: .dependency-cruiser.cjs). The cruiser cannot read TypeScript 7, so it is given the
// skeleton of each file: its import and export statements and nothing else, type imports included.
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ensureInstalled, root } from './install.mjs';

ensureInstalled();
const { cruise } = await import('dependency-cruiser');
const { default: config } = await import('../.dependency-cruiser.cjs');
const skeleton = join(root, 'build', 'structure');
rmSync(skeleton, { recursive: true, force: true });

const IMPORT = /^\s*(?:import|export)\s[^;]*?from\s+'([^']+)'|^\s*import\s+'([^']+)'|import\('([^']+)'\)/gm;
let files = 0;
for (const entry of readdirSync(join(root, 'src'), { recursive: true, withFileTypes: true })) {
  if (!entry.isFile() || !/\.tsx?$/.test(entry.name) || entry.name.endsWith('.d.ts')) continue;
  const path = join(entry.parentPath, entry.name);
  const text = readFileSync(path, 'utf8').replace(/\/\*[\s\S]*?\*\//g, '');
  const names = [...text.matchAll(IMPORT)].map((m) => m[1] ?? m[2] ?? m[3]).filter((name) => !name.endsWith('.css'));
  const to = join(skeleton, path.slice(root.length)).replace(/\.tsx?$/, '.js');
  mkdirSync(dirname(to), { recursive: true });
  writeFileSync(to, names.map((name) => `import '${name}';\n`).join(''));
  files++;
}

process.chdir(skeleton);
const { output } = await cruise(['src'], {
  ruleSet: { forbidden: config.forbidden },
  validate: true,
  ...config.options
});
const { violations, error, totalCruised } = output.summary;
for (const v of violations)
  console.error(
    `${v.rule.name}: ${v.from} imports ${v.to}${v.cycle ? ` (cycle: ${v.cycle.map((c) => c.name ?? c).join(', ')})` : ''}`
  );
console.log(`structure: ${files} files, ${totalCruised} modules, ${violations.length} violations`);
process.exit(error > 0 || totalCruised < files ? 1 : 0);
