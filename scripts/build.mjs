// Builds what node and the browser run: the kernel, the bundles for the processes beside the web server, and the web
// application. Does not repeat what is done: each step keeps a stamp of the hash of what it was made from.
// Usage: node scripts/build.mjs [kernel] [bundles] [web]; all when none is named.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root } from './install.mjs';
import { ensureWeights } from './weights.mjs';

// every task runs in a process of its own (src/server/jobs/tasks.ts)
const TASKS = readdirSync(join(root, 'src/server/tasks')).map((file) => file.replace(/\.ts$/, ''));
const BUNDLES = {
  ...Object.fromEntries(TASKS.map((name) => [`task-${name}`, `src/server/tasks/${name}.ts`])),
  'render-thread': 'src/server/render/thread.ts',
  'tree-thread': 'src/server/render/tree-thread.ts',
  'render-service': 'src/server/render/service.ts',
  'library-previews': 'src/server/render/library-previews.ts',
  cli: 'src/cli/main.ts',
  'watch-service': 'src/cli/watch-service.ts',
  seed: 'src/demo/seed.ts',
  sheet: 'src/demo/sheet.ts',
  'swatch-sheet': 'src/cli/swatch-sheet.ts'
};

function filesUnder(path) {
  if (!existsSync(path)) return [];
  if (statSync(path).isFile()) return [path];
  return readdirSync(path, { withFileTypes: true }).flatMap((entry) =>
    entry.name === 'node_modules' ? [] : filesUnder(join(path, entry.name))
  );
}

function hashOf(paths) {
  const hash = createHash('sha256');
  for (const path of paths.flatMap((p) => filesUnder(join(root, p))).sort()) {
    if (/\.test\.tsx?$/.test(path)) continue;
    hash.update(path.slice(root.length));
    hash.update(readFileSync(path));
  }
  return hash.digest('hex');
}

function step(name, sources, made, work) {
  const stamp = join(root, 'build', `${name}.stamp`);
  const hash = hashOf(['scripts/build.mjs', 'package-lock.json', 'tsconfig.json', ...sources]);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash && made.every((path) => existsSync(join(root, path))))
    return;
  console.log(`building ${name}`);
  work();
  mkdirSync(join(root, 'build'), { recursive: true });
  writeFileSync(stamp, hash);
}

function run(command, args, env = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  if (status !== 0) {
    console.error(`build failed: ${args[0]}`);
    process.exit(1);
  }
}

/** `more`: further words for the compiler. */
export function compileKernel(to, more = []) {
  run(process.execPath, [
    'node_modules/assemblyscript/bin/asc.js',
    'src/kernel/assembly/index.ts',
    '-o',
    to,
    '--runtime',
    'stub',
    '-O3',
    '--noAssert',
    '--importMemory',
    '--sharedMemory',
    '--initialMemory',
    '16',
    '--maximumMemory',
    '65536',
    '--enable',
    'simd,threads,bulk-memory',
    '--memoryBase',
    '1024',
    ...more
  ]);
}

/**
 * No engine inlines one function of a module into another, so more of it here: 4 to 7 % of a path's time in the demo's
 * hut and room, the same bits.
 */
function inlineMore(binaryen, path) {
  const module = binaryen.readBinary(readFileSync(path));
  module.setFeatures(binaryen.Features.All);
  binaryen.setOptimizeLevel(4);
  binaryen.setShrinkLevel(0);
  binaryen.setAlwaysInlineMaxSize(80);
  binaryen.setFlexibleInlineMaxSize(400);
  binaryen.setOneCallerInlineMaxSize(8000);
  module.optimize();
  writeFileSync(path, module.emitBinary());
}

export async function build(steps = ['kernel', 'bundles', 'web']) {
  ensureInstalled();
  mkdirSync(join(root, 'build'), { recursive: true });
  ensureWeights();
  if (steps.includes('kernel')) {
    const { default: binaryen } = await import('binaryen');
    step('kernel', ['src/kernel/assembly'], ['build/kernel.wasm'], () => {
      compileKernel('build/kernel.wasm');
      inlineMore(binaryen, join(root, 'build/kernel.wasm'));
    });
  }
  if (steps.includes('bundles')) {
    const { makeTowns } = await import('./towns.mjs');
    step('towns', ['scripts/towns.mjs'], ['build/towns.tsv'], () => makeTowns(join(root, 'build/towns.tsv')));
    const entries = Object.fromEntries(Object.entries(BUNDLES).filter(([, source]) => existsSync(join(root, source))));
    const { build: bundle } = await import('esbuild');
    const sources = [
      'src/core',
      'src/kernel',
      'src/formats',
      'src/denoise',
      'src/contracts',
      'src/server',
      'src/cli',
      'src/drawing',
      'src/demo'
    ];
    const stale = [];
    step(
      'bundles',
      sources,
      Object.keys(entries).map((name) => `build/${name}.mjs`),
      () => stale.push(true)
    );
    if (stale.length)
      await bundle({
        entryPoints: entries,
        outdir: join(root, 'build'),
        outExtension: { '.js': '.mjs' },
        bundle: true,
        platform: 'node',
        format: 'esm',
        target: 'node20',
        packages: 'external',
        sourcemap: 'linked',
        logLevel: 'warning',
        tsconfig: join(root, 'tsconfig.json')
      });
  }
  if (steps.includes('web')) {
    // what light looks like depends on little: not on the importers, the server's store or the screens
    const light = [
      'src/core/brief',
      'src/core/lights',
      'src/core/scene',
      'src/core/color',
      'src/core/finishing/develop.ts',
      'src/kernel',
      'src/server/render/library-previews.ts',
      'src/server/render/surroundings-preview.ts',
      'src/server/render/prepare.ts',
      'src/server/render/session.ts'
    ];
    step('library', light, ['build/library'], () =>
      run(process.execPath, ['build/library-previews.mjs', 'build/library'], { SPHAERA_ROOT: root })
    );
  }
  if (steps.includes('web'))
    step(
      'web',
      [
        'src/app',
        'src/features',
        'src/ui',
        'src/core',
        'src/server',
        'src/contracts',
        'src/formats',
        'src/proxy.ts',
        'src/instrumentation.ts',
        'src/end-with-starter.ts',
        'next.config.ts',
        'postcss.config.mjs',
        'public'
      ],
      ['.next/BUILD_ID'],
      () => run(process.execPath, ['node_modules/next/dist/bin/next', 'build'], { NEXT_TELEMETRY_DISABLED: '1' })
    );
}

if (process.argv[1] === new URL(import.meta.url).pathname)
  await build(process.argv.length > 2 ? process.argv.slice(2) : undefined);
