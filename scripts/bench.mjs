// npm run bench: traversal against Embree and three-mesh-bvh, growth with the model, whole paths on the demo scenes and
// what their time goes to, and what each part of the sampling is worth, in one run. Results: bench/RESULTS.md. Parts
// may be named; npm run bench:denoise names what the filters are worth and what they take.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build, compileKernel } from './build.mjs';
import { root } from './install.mjs';

await build(['kernel', 'bundles']);
const { build: bundle } = await import('esbuild');
const named = process.argv.slice(2);
for (const name of named.length > 0 ? named : ['traversal', 'scale', 'render', 'shares', 'parts']) {
  // a profile needs names, and functions that are not inlined into others
  if (name === 'shares') compileKernel('build/kernel-named.wasm', ['--debug']);
  const outfile = join(root, 'build', `bench-${name}.mjs`);
  await bundle({
    entryPoints: [join(root, 'bench', name, 'run.ts')],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    logLevel: 'warning',
    tsconfig: join(root, 'tsconfig.json')
  });
  console.log(`\n== ${name}`);
  const { status } = spawnSync(process.execPath, [outfile], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, SPHAERA_ROOT: root }
  });
  if (status !== 0) process.exit(status ?? 1);
}
