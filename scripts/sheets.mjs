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
  const { status } = spawnSync(process.execPath, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, SPHAERA_ROOT: root }
  });
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
  water: {
    out: 'docs/water-sheet.png',
    brief: brief({
      surroundings: {
        kind: 'sky',
        latitude_deg: 49.4,
        longitude_deg: 15.6,
        time: '2026-07-12T18:20:00+02:00',
        north_deg: 150,
        visibility_km: 30,
        cloud: 0
      },
      finish: { denoise: 1, exposure_ev: 0 }
    })
  }
};
const wanted = process.argv.slice(2);
for (const [name, { out, brief }] of Object.entries(SHEETS)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  run('build/sheet.mjs', name, join(work, `${name}.glb`));
  writeFileSync(join(work, `${name}.json`), JSON.stringify(brief));
  run(
    'build/cli.mjs',
    'render',
    join(work, `${name}.glb`),
    '--brief',
    join(work, `${name}.json`),
    '--out',
    out,
    '--report',
    join(work, `${name}.report.json`)
  );
}
if (wanted.length === 0 || wanted.includes('swatches')) run('build/swatch-sheet.mjs', 'docs/swatch-sheet.png');

/** One model under several lights, side by side. */
async function compare(name, model, out, columns, briefs) {
  if (wanted.length > 0 && !wanted.includes(name)) return;
  const { default: sharp } = await import('sharp');
  run('build/sheet.mjs', model, join(work, `${model}.glb`));
  const pictures = briefs.map((more, i) => {
    const file = join(work, `${name}-${i}`);
    writeFileSync(`${file}.json`, JSON.stringify(more));
    run('build/cli.mjs', 'render', join(work, `${model}.glb`), '--brief', `${file}.json`, '--out', `${file}.png`);
    return `${file}.png`;
  });
  const { width, height } = await sharp(pictures[0]).metadata();
  const gap = 6;
  await sharp({
    create: {
      width: columns * (width + gap) - gap,
      height: Math.ceil(pictures.length / columns) * (height + gap) - gap,
      channels: 3,
      background: '#ffffff'
    }
  })
    .composite(
      pictures.map((input, i) => ({
        input,
        left: (i % columns) * (width + gap),
        top: Math.floor(i / columns) * (height + gap)
      }))
    )
    .png({ palette: true, quality: 92 })
    .toFile(out);
}

const sky = (time, more = {}) => ({
  kind: 'sky',
  latitude_deg: 49.4,
  longitude_deg: 15.6,
  time: `2026-10-12T${time}:00+02:00`,
  north_deg: 22,
  visibility_km: 40,
  cloud: 0.1,
  ...more
});
const off = { groups: ['Picture spot', 'Shelf lamps', 'Table lamps'].map((group) => ({ group, on: false })) };
await compare(
  'day',
  'room',
  'docs/day-sheet.png',
  3,
  [
    ['07:50', off],
    ['09:30', off],
    ['13:00', off],
    ['16:40', off],
    ['18:35', {}],
    ['21:15', {}]
  ].map(([time, lamps]) =>
    brief({
      viewpoint: { camera: 'East window' },
      surroundings: sky(time),
      lamps,
      size: { width_px: 420, height_px: 297 },
      quality: { step: 'study', samples: 64, bounces: 10, firefly: 4 },
      finish: { denoise: 1, exposure_ev: 0 }
    })
  )
);
const lampsOff = { groups: ['Door lamp', 'Lamp strip'].map((group) => ({ group, on: false })) };
const cumulus = (cover, base_m, seed, sun = 'free') => ({ cover, base_m, seed, sun });
const hill = (time, more, lamps = lampsOff) =>
  brief({
    viewpoint: { camera: 'From the meadow' },
    surroundings: { ...sky('12:00', { north_deg: -10, ...more }), time },
    lamps,
    size: { width_px: 480, height_px: 270 },
    quality: { step: 'study', samples: 64, bounces: 8, firefly: 4 },
    finish: { denoise: 1, exposure_ev: 0 }
  });
await compare('skies', 'hut', 'docs/sky-sheet.png', 3, [
  hill('2026-06-21T10:30:00+02:00', { visibility_km: 70, cloud: 0, cumulus: cumulus(0.4, 1300, 4) }),
  hill('2026-04-18T16:00:00+02:00', { cloud: 0.1, cumulus: cumulus(0.65, 900, 2, 'behind') }),
  hill('2026-10-12T12:30:00+02:00', { visibility_km: 20, cloud: 1 }),
  hill('2026-10-12T17:20:00+02:00', { cloud: 0, cumulus: cumulus(0.3, 1800, 7) }),
  hill('2026-10-12T18:50:00+02:00', { cloud: 0 }, {}),
  hill('2026-09-26T22:30:00+02:00', { cloud: 0, cumulus: cumulus(0.25, 1500, 3), moon_ev: 5 }, {})
]);
await compare(
  'sets',
  'lamp',
  'docs/set-sheet.png',
  6,
  ['three', 'window', 'edges', 'ring', 'overhead', 'dusk'].map((set) =>
    brief({
      viewpoint: { camera: 'Whole lamp' },
      surroundings: { kind: 'studio', set },
      size: { width_px: 240, height_px: 340 },
      quality: { step: 'study', samples: 64, bounces: 12, firefly: 4 },
      finish: { denoise: 1, exposure_ev: 0 }
    })
  )
);
if (wanted.length === 0 || wanted.includes('lamps')) {
  const { build: bundle } = await import('esbuild');
  const outfile = join(root, 'build', 'sheet-lamps.mjs');
  await bundle({
    entryPoints: [join(root, 'bench/sheets/lamps.ts')],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    logLevel: 'warning',
    tsconfig: join(root, 'tsconfig.json')
  });
  run(outfile, 'docs/lamp-sheet.png');
}
