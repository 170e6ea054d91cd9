#!/usr/bin/env node
// The `sphaera` command: builds what it needs when that is not there yet, then runs it.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ownData, root } from './install.mjs';

const log = console.log;
console.log = (...words) => process.stderr.write(`${words.join(' ')}\n`); // standard output belongs to the command
await build(['kernel', 'bundles']);
console.log = log;
const { status } = spawnSync(
  process.execPath,
  ['--enable-source-maps', join(root, 'build', 'cli.mjs'), ...process.argv.slice(2)],
  { stdio: 'inherit', env: { SPHAERA_DATA: ownData, ...process.env, SPHAERA_ROOT: root } }
);
process.exit(status ?? 3);
