// npm run sheets: renders the material sheet into docs/, through the command, as a user would.
import { spawnSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build.mjs';
import { root } from './install.mjs';

await build(['kernel', 'bundles']);
const work = join(root, 'build', 'sheets');
mkdirSync(work, { recursive: true });
const run = (...args) => {
  const { status } = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit', env: { ...process.env, SPHAERA_ROOT: root } });
  if (status !== 0) process.exit(1);
};
run('build/sheet.mjs', join(work, 'materials.glb'));
const brief = {
  version: 1,
  viewpoint: { camera: 'Sheet' },
  surroundings: { kind: 'studio' },
  exposure: { metered: true },
  size: { width_px: 1040, height_px: 740 },
  quality: { step: 'study', samples: 48, bounces: 12, firefly: 4 },
  finish: { denoise: 1, exposure_ev: -0.3 }
};
writeFileSync(join(work, 'materials.json'), JSON.stringify(brief));
run('build/cli.mjs', 'render', join(work, 'materials.glb'), '--brief', join(work, 'materials.json'), '--out', 'docs/material-sheet.png', '--report', join(work, 'materials.report.json'));
