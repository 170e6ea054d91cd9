// npm run bench: traversal against Embree and three-mesh-bvh, then whole paths on the demo scenes, in one run. Results: bench/RESULTS.md.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { root } from './install.mjs';

await build(['kernel', 'bundles']);
const { build: bundle } = await import('esbuild');
for (const name of ['traversal', 'render']) {
  const outfile = join(root, 'build', `bench-${name}.mjs`);
  await bundle({ entryPoints: [join(root, 'bench', name, 'run.ts')], outfile, bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', logLevel: 'warning', tsconfig: join(root, 'tsconfig.json') });
  console.log(`\n== ${name}`);
  const { status } = spawnSync(process.execPath, [outfile], { cwd: root, stdio: 'inherit', env: { ...process.env, SPHAERA_ROOT: root } });
  if (status !== 0) process.exit(status ?? 1);
}
