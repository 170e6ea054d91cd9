// Installs the packages when they are missing or older than the lock file; every script begins here, so none needs
// node_modules.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Where the application keeps a user's data, unless SPHAERA_DATA says otherwise. */
export const ownData = join(root, 'data', 'own');

export function ensureInstalled() {
  const stamp = join(root, 'node_modules', '.sphaera-lock');
  const hash = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  console.log('installing packages (a few minutes the first time: the database is compiled)');
  // -O1 halves the compilation of the database library and costs nothing that we notice; the inference library has its
  // binaries in its package and would only fetch others
  const env = {
    ...process.env,
    ONNXRUNTIME_NODE_INSTALL: 'skip',
    CFLAGS: process.env.CFLAGS ?? '-O1',
    CXXFLAGS: process.env.CXXFLAGS ?? '-O1'
  };
  const { status } = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: 'inherit',
    env
  });
  if (status !== 0) {
    console.error('npm ci failed; see its lines above');
    process.exit(1);
  }
  writeFileSync(stamp, hash);
}
