import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { readExr } from '../../src/formats/exr/read-exr';
import { boxGlb } from '../support/glb';

let folder: string;
const at = (name: string) => join(folder, name);
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'sphaera-test-'));
  await writeFile(at('box.glb'), await boxGlb());
});
function sphaera(...args: string[]) {
  const { status, stderr, stdout } = spawnSync(process.execPath, ['build/cli.mjs', ...args], {
    encoding: 'utf8',
    env: { ...process.env, SPHAERA_ROOT: process.cwd() }
  });
  return { status, stderr, stdout };
}
async function render(name: string, brief: object, out: string, ...more: string[]) {
  await writeFile(
    at(`${name}.json`),
    JSON.stringify({ version: 1, viewpoint: { position_m: [1.5, 1.2, 2], target_m: [0, 0, 0] }, ...brief })
  );
  return sphaera(
    'render',
    at('box.glb'),
    '--brief',
    at(`${name}.json`),
    '--out',
    at(out),
    '--report',
    at(`${name}.report.json`),
    ...more
  );
}
const report = async (name: string) =>
  JSON.parse(await readFile(at(`${name}.report.json`), 'utf8')) as Record<string, number | string>;
const small = { size: { width_px: 100, height_px: 80 }, quality: { samples: 16 } };

describe('sphaera render', () => {
  it.skipIf(!existsSync('/usr/bin/exrheader'))(
    'with layers, OpenEXR holds each light and the features, and the film is the same',
    async () => {
      const lit = { ...small, surroundings: { kind: 'sky', time: '2026-06-21T14:00:00+02:00' } };
      await render('plain', lit, 'plain.exr');
      expect(await render('layers', { ...lit, quality: { samples: 16, layers: true } }, 'layers.exr')).toMatchObject({
        status: 0
      });
      const channels = spawnSync('exrheader', [at('layers.exr')], { encoding: 'utf8' })
        .stdout.match(/^ {4}(\S+), 32-bit/gm)!
        .map((line) => line.trim().split(',')[0]);
      expect(channels).toEqual([
        'B',
        'G',
        'R',
        'normal.X',
        'normal.Y',
        'normal.Z',
        'reflectance.B',
        'reflectance.G',
        'reflectance.R',
        'sun.B',
        'sun.G',
        'sun.R',
        'surroundings.B',
        'surroundings.G',
        'surroundings.R'
      ]);
      expect((await report('layers')).film_sha256).toBe((await report('plain')).film_sha256);
      const whole = readExr(new Uint8Array(await readFile(at('layers.exr'))));
      expect([...whole.pixels]).toEqual([...readExr(new Uint8Array(await readFile(at('plain.exr')))).pixels]);
    }
  );
  it.skipIf(!existsSync('/usr/bin/exrheader'))(
    'with aovs, OpenEXR holds masks with their names, depth and the light by its way',
    async () => {
      expect(await render('aovs', { ...small, quality: { samples: 16, aovs: true } }, 'aovs.exr')).toMatchObject({
        status: 0
      });
      const header = spawnSync('exrheader', [at('aovs.exr')], { encoding: 'utf8' }).stdout;
      const channels = header.match(/^ {4}(\S+), 32-bit/gm)!.map((line) => line.trim().split(',')[0]);
      expect(channels).toEqual(
        expect.arrayContaining([
          'depth.Z',
          'ambientOcclusion.Y',
          'direct.R',
          'indirect.R',
          'mirrored.R',
          'throughGlass.R',
          'object.id0',
          'object.share3',
          'material.id0'
        ])
      );
      expect(header).toMatch(/materialNames.*\n?.*\[/);
      await render('plain2', small, 'plain2.exr');
      expect((await report('aovs')).film_sha256).toBe((await report('plain2')).film_sha256);
    }
  );
  it('renders to OpenEXR: even radiance 1 is 1 where nothing stands before it', async () => {
    expect(await render('even', small, 'even.exr')).toMatchObject({ status: 0, stderr: '' });
    const image = readExr(new Uint8Array(await readFile(at('even.exr'))));
    expect([image.width, image.height]).toEqual([100, 80]);
    expect([...image.pixels.subarray(0, 3)]).toEqual([1, 1, 1]);
    const middle = (40 * 100 + 50) * 3;
    expect(image.pixels[middle]).toBeLessThan(0.85);
    expect(await report('even')).toMatchObject({
      width_px: 100,
      height_px: 80,
      samples: 16,
      film_sha256: expect.stringMatching(/^[0-9a-f]{64}$/)
    });
  });
  it('gives the same film with one thread and with two, and samples exactly as asked', async () => {
    await render('one', { ...small, quality: { samples: 37 } }, 'one.png', '--threads', '1');
    await render('two', { ...small, quality: { samples: 37 } }, 'two.png', '--threads', '2');
    expect((await report('one')).film_sha256).toBe((await report('two')).film_sha256);
    expect((await report('one')).samples).toBe(37);
  });
  it('the finish changes the file but not the film', async () => {
    await render('plain', { ...small, exposure: { ev100: 0 } }, 'plain.png');
    await render('bright', { ...small, exposure: { ev100: 0 }, finish: { exposure_ev: 2 } }, 'bright.png');
    expect((await report('plain')).film_sha256).toBe((await report('bright')).film_sha256);
    const mean = async (name: string) => (await sharp(at(name)).stats()).channels[0]!.mean;
    expect(await mean('bright.png')).toBeGreaterThan((await mean('plain.png')) + 10);
  });
  it('stops tiles at their grain before the sample limit', async () => {
    await render(
      'grain',
      {
        size: { width_px: 128, height_px: 128 },
        surroundings: { kind: 'sky', time: '2026-06-21T14:00:00+02:00' },
        exposure: { metered: true },
        quality: { samples: 1024, grain: 1.5 }
      },
      'grain.png'
    );
    const { samples, grain } = await report('grain');
    expect(samples as number).toBeLessThan(1024);
    expect(grain as number).toBeLessThan(1.5);
  });
  it('a clear background is transparent round the box and opaque on it', async () => {
    await render('clear', { ...small, finish: { background: { kind: 'clear' } } }, 'clear.png');
    // a picture for a screen says no density: its pixels are square, of unknown size (PNG 3, pHYs with unit 0)
    const png = await readFile(at('clear.png'));
    expect([...png.subarray(png.indexOf('pHYs') + 4, png.indexOf('pHYs') + 13)]).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0]);
    const { data, info } = await sharp(at('clear.png')).raw().toBuffer({ resolveWithObject: true });
    expect(info.channels).toBe(4);
    expect(data[3]).toBe(0);
    expect(data[(40 * 100 + 50) * 4 + 3]).toBe(255);
  });
  it('the picture is the same at any size, scaled down (light does not depend on size)', async () => {
    const brief = {
      surroundings: { kind: 'sky', time: '2026-06-21T14:00:00+02:00' },
      exposure: { ev100: 14 },
      quality: { samples: 256 }
    };
    const means: number[] = [];
    for (const k of [1, 2, 4]) {
      await render(
        `size${k}`,
        { ...brief, size: { width_px: 32 * k, height_px: 24 * k }, quality: { samples: 512 / k } },
        `size${k}.png`
      );
      means.push(
        (
          await sharp(at(`size${k}.png`))
            .resize(32, 24, { kernel: 'cubic' })
            .stats()
        ).channels[1]!.mean
      );
    }
    expect(Math.max(...means) - Math.min(...means)).toBeLessThan(1.5);
  });

  const has = (tool: string) => existsSync(`/usr/bin/${tool}`);
  const print = { size: { paper: 'A6', orientation: 'landscape', ppi: 100 }, quality: { samples: 4, scale: 0.5 } };
  it.skipIf(!has('pngcheck'))(
    'PNG has its density and profile, read back by pngcheck: 50 ppi are 1969 px/m',
    async () => {
      await render('png', print, 'print.png');
      const text = execFileSync('pngcheck', ['-v', at('print.png')], { encoding: 'utf8' });
      expect(text).toMatch(/1969x1969 pixels\/meter/);
      expect(text).toMatch(/iCCP/);
      expect(text).toMatch(/No errors detected/);
    }
  );
  it.skipIf(!has('exiftool'))('JPEG has its density in JFIF and an sRGB profile, read back by exiftool', async () => {
    await render('jpg', print, 'print.jpg');
    const text = execFileSync(
      'exiftool',
      ['-JFIF:XResolution', '-JFIF:ResolutionUnit', '-ICC_Profile:ProfileDescription', at('print.jpg')],
      { encoding: 'utf8' }
    );
    expect(text).toMatch(/X Resolution\s+: 50/);
    expect(text).toMatch(/inches/);
    expect(text).toMatch(/sRGB/i);
  });
  it.skipIf(!has('exrheader'))('OpenEXR has its channels and density, read back by exrheader', async () => {
    await render('exr', { ...print, finish: { background: { kind: 'clear' } } }, 'print.exr');
    const text = execFileSync('exrheader', [at('print.exr')], { encoding: 'utf8' });
    expect(text).toMatch(/A, 32-bit floating-point/);
    expect(text).toMatch(/xDensity.*50/);
    expect(text).toMatch(/whiteLuminance.*1/);
  });
});

describe('sphaera refuses with one clear line and exit code 2', () => {
  it.each([
    ['an unknown field', { quality: { sample: 3 } }, /brief\.quality\.sample is not a known field/],
    [
      'a value out of range',
      { quality: { bounces: 900 } },
      /brief\.quality\.bounces must be a whole number from 0 to 64, got 900/
    ],
    [
      'a camera that is not there',
      { viewpoint: { camera: 'North' } },
      /brief\.viewpoint\.camera "North" is not in the model/
    ],
    [
      'a captured image that is not there',
      { surroundings: { kind: 'captured', file: 'nothing.hdr' } },
      /surroundings\.file "nothing\.hdr" cannot be read/
    ],
    ['a viewpoint that looks nowhere', { viewpoint: { position_m: [1, 1, 1], target_m: [1, 1, 1] } }, /same point/]
  ])('%s', async (name, brief, expected) => {
    const { status, stderr } = await render(name.replaceAll(' ', '-'), { ...small, ...brief }, 'no.png');
    expect(status).toBe(2);
    expect(stderr.trim().split('\n')).toHaveLength(1);
    expect(stderr).toMatch(expected);
    expect(existsSync(at('no.png'))).toBe(false);
  });
  it('unknown options, commands, formats', () => {
    expect(sphaera('render', at('box.glb'), '--brief', 'x.json', '--out', 'a.gif')).toMatchObject({ status: 2 });
    expect(sphaera('paint')).toMatchObject({ status: 2 });
    expect(sphaera('render', '--bogus', '1')).toMatchObject({ status: 2 });
    expect(sphaera('import', at('box.glb'), '--unit', 'mile', '--out', at('x.glb')).stderr).toMatch(
      /--unit must be one of mm, cm, m, in, ft/
    );
  });
});

it('sphaera import writes a GLB and its report', async () => {
  expect(
    sphaera('import', at('box.glb'), '--unit', 'cm', '--out', at('small.glb'), '--report', at('import.json'))
  ).toMatchObject({ status: 0 });
  const { size_m, triangles } = JSON.parse(await readFile(at('import.json'), 'utf8')) as {
    size_m: number[];
    triangles: number;
  };
  expect(size_m.map((v) => Math.round(v * 1e5) / 1e5)).toEqual([0.01, 0.01, 0.01]);
  expect(triangles).toBe(12);
});
