// The one test command. Installs what a bare machine lacks, lints, checks types and structure, builds, runs unit and
// browser tests, and ends with the line `N passed, N failed`. Parts may be named: lint unit browser.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ensureInstalled, root } from './install.mjs';

const parts = process.argv.slice(2);
const all = parts.length === 0;
const wants = (part) => all || parts.includes(part);
let passed = 0;
let failed = 0;

const begins = (args, stdio) =>
  spawn(process.execPath, args, {
    cwd: root,
    stdio,
    env: { ...process.env, SPHAERA_ROOT: root, NEXT_TELEMETRY_DISABLED: '1' }
  });
const ends = (child) => new Promise((resolve) => child.once('close', (status) => resolve(status === 0)));
const said = (name, good, began) =>
  console.log(`== ${name}: ${good ? 'good' : 'FAILED'}, ${Math.round((Date.now() - began) / 1000)} s`);

async function run(name, args) {
  console.log(`\n== ${name}`);
  const began = Date.now();
  const good = await ends(begins(args, 'inherit'));
  said(name, good, began);
}

/** Checks beside the tests, one after the other; each counts as one and says what it has to say when it ends. */
async function check(...checks) {
  for (const [name, args] of checks) {
    const began = Date.now();
    const child = begins(args, ['ignore', 'pipe', 'pipe']);
    const chunks = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => chunks.push(chunk));
    const good = await ends(child);
    if (good) passed++;
    else failed++;
    console.log(`\n${Buffer.concat(chunks).toString().trim()}`);
    said(name, good, began);
  }
}

/**
 * Debian packages that the tests use: a browser, and tools that read back what we write. Installed when missing and
 * allowed.
 */
function ensureTools() {
  const tools = {
    '/usr/bin/chromium': 'chromium',
    '/usr/bin/pngcheck': 'pngcheck',
    '/usr/bin/exiftool': 'libimage-exiftool-perl',
    '/usr/bin/exrheader': 'openexr',
    '/usr/bin/tiffinfo': 'libtiff-tools',
    '/usr/bin/pdfinfo': 'poppler-utils',
    '/usr/share/assimp/models': 'assimp-testmodels'
  };
  const missing = Object.entries(tools)
    .filter(([path]) => !existsSync(path))
    .map(([, name]) => name);
  if (missing.length === 0) return;
  console.log(`installing ${missing.join(', ')}`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = (...args) =>
    spawnSync([...sudo, 'apt-get'][0], [...sudo, 'apt-get'].slice(1).concat(args), {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
    }).status;
  if (apt('install', '-y', '--no-install-recommends', ...missing) !== 0) {
    apt('update');
    apt('install', '-y', '--no-install-recommends', ...missing);
  }
  if (!existsSync('/usr/bin/chromium')) {
    console.error('the browser tests need Chromium at /usr/bin/chromium; install the Debian package chromium');
    failed++;
  }
}

function count(file, read) {
  const path = join(root, file);
  if (!existsSync(path)) {
    failed++;
    return;
  }
  const [good, bad] = read(JSON.parse(readFileSync(path, 'utf8')));
  passed += good;
  failed += bad;
}

ensureInstalled();
ensureTools();
// lint and types read sources alone, so they run beside the build and the tests
const checks = wants('lint')
  ? check(
      ['format and lint', ['node_modules/@biomejs/biome/bin/biome', 'check', '--error-on-warnings', '.']],
      ['line length', ['scripts/line-length.mjs']],
      ['structure', ['scripts/structure.mjs']],
      ['types', ['node_modules/typescript/bin/tsc', '--noEmit', '-p', 'tsconfig.json']],
      ['types of the pure core', ['node_modules/typescript/bin/tsc', '--noEmit', '-p', 'tsconfig.core.json']]
    )
  : Promise.resolve();
await build(wants('browser') ? undefined : ['kernel', 'bundles']);
if (wants('unit')) {
  rmSync(join(root, 'build/unit-results.json'), { force: true });
  await run('unit and integration tests', ['node_modules/vitest/vitest.mjs', 'run']);
  count('build/unit-results.json', (r) => [
    r.numPassedTests,
    r.numFailedTests + r.testResults.filter((t) => t.status === 'failed' && t.assertionResults.length === 0).length
  ]);
}
// the browser tests have the machine for themselves
await checks;
if (wants('browser')) {
  rmSync(join(root, 'build/browser-results.json'), { force: true });
  await run('browser tests', ['node_modules/@playwright/test/cli.js', 'test']);
  count('build/browser-results.json', (r) => [r.stats.expected, r.stats.unexpected + r.stats.flaky]);
}
if (passed === 0) failed++;
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
