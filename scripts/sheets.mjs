// npm run sheets [-- NAME ...]: renders the sheets of docs/ through the command, as a user would.
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
const brief = (more) => ({
  version: 1,
  viewpoint: { camera: 'Sheet' },
  surroundings: { kind: 'studio' },
  exposure: { metered: true },
  size: { width_px: 1040, height_px: 740 },
  quality: { step: 'study', samples: 48, bounces: 12, firefly: 4 },
  finish: { denoise: 1, exposure_ev: -0.3 },
  ...more
});
const SHEETS = {
  materials: { out: 'docs/material-sheet.png', brief: brief({}) },
  solids: { out: 'docs/solid-sheet.png', brief: brief({}) },
  water: { out: 'docs/water-sheet.png', brief: brief({ surroundings: { kind: 'sky', latitude_deg: 49.4, longitude_deg: 15.6, time: '2026-07-12T18:20:00+02:00', north_deg: 150, visibility_km: 30, cloud: 0 }, finish: { denoise: 1, exposure_ev: 0 } }) }
};
const wanted = process.argv.slice(2);
for (const [name, { out, brief }] of Object.entries(SHEETS)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  run('build/sheet.mjs', name, join(work, `${name}.glb`));
  writeFileSync(join(work, `${name}.json`), JSON.stringify(brief));
  run('build/cli.mjs', 'render', join(work, `${name}.glb`), '--brief', join(work, `${name}.json`), '--out', out, '--report', join(work, `${name}.report.json`));
}
if (wanted.length === 0 || wanted.includes('lamps')) {
  const { build: bundle } = await import('esbuild');
  const outfile = join(root, 'build', 'sheet-lamps.mjs');
  await bundle({ entryPoints: [join(root, 'bench/sheets/lamps.ts')], outfile, bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', logLevel: 'warning', tsconfig: join(root, 'tsconfig.json') });
  run(outfile, 'docs/lamp-sheet.png');
}
