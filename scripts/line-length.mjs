// Fails when a source line is longer than 140 characters. The formatter breaks code at 120 columns, but leaves comments and
// strings alone, and does not read the kernel's AssemblyScript.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const MAX_COLUMNS = 140;
const listed = spawnSync(
  'git',
  ['ls-files', '--cached', '--others', '--exclude-standard', 'src', 'tests', 'bench', 'scripts'],
  {
    cwd: root,
    encoding: 'utf8'
  }
);
const long = listed.stdout
  .split('\n')
  .filter((file) => /\.(ts|tsx|mjs|css|cpp)$/.test(file) && existsSync(join(root, file)))
  .flatMap((file) =>
    readFileSync(join(root, file), 'utf8')
      .split('\n')
      .flatMap((line, i) => (line.length > MAX_COLUMNS ? [`${file}:${i + 1}: ${line.length} columns`] : []))
  );
if (long.length > 0) console.error(`lines of more than ${MAX_COLUMNS} columns:\n${long.join('\n')}`);
process.exit(long.length > 0 ? 1 : 0);
