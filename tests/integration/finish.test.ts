/** The finish of proofs, through the render service: dimmers against fresh renders, the stage against files, kept proofs. */
import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type Brief, BRIEF_DEFAULTS, type Finish, SURROUNDINGS_DEFAULTS } from '../../src/core/brief/brief';
import { decodeSrgb } from '../../src/core/color/srgb';
import { parseCube } from '../../src/core/color/table';
import { openStageFilm, stageLight } from '../../src/core/film/stage-film';
import { pressProof, unpackPress } from '../../src/core/finishing/press-proof';
import { proposeFinish } from '../../src/core/finishing/propose';
import { StageDeveloper } from '../../src/core/finishing/stage-developer';
import { boxGlb } from '../support/glb';
import { pressIcc } from '../support/press-icc';

// the use cases read their data folder when they are loaded
const data = await mkdtemp(join(tmpdir(), 'sphaera-finish-'));
vi.stubEnv('SPHAERA_DATA', data);
const { put } = await import('../../src/server/files/content-store');
const { createProject } = await import('../../src/server/usecases/create-project');
const { addTable } = await import('../../src/server/usecases/add-table');
const { addPicture } = await import('../../src/server/usecases/add-picture');
const { changeBrief } = await import('../../src/server/usecases/change-brief');
const { addPressProfile, pressColoursFile } = await import('../../src/server/usecases/press-profiles');
const { giveFinish } = await import('../../src/server/usecases/give-finish');
const { finishProofOf, requestProof } = await import('../../src/server/usecases/request-proof');
const { deliverProof } = await import('../../src/server/usecases/deliver-proof');
const { stageFilm } = await import('../../src/server/usecases/stage-film');
const { viewPicture } = await import('../../src/server/usecases/view-workspace');
const { findProof } = await import('../../src/server/store/proofs');
const { closeDatabase } = await import('../../src/server/store/database');

const PROJECT = 'Small box';
const SIZE = { width_px: 160, height_px: 120 };
const FILE = {
  kind: 'png',
  bits: 16,
  colors: 'srgb',
  press: null,
  long_px: null,
  half: false,
  pictureOnly: false,
  quality: 94,
  background: 'own',
  finish: 'picture',
  asRendered: false,
  cropMarks: false,
  about: null,
  pattern: ''
} as const;
let service: ChildProcess;
let first: string;

const briefOf = (picture: string) => viewPicture(picture)!.picture.brief;
function change(picture: string, part: Partial<Brief>): void {
  const changed = changeBrief(picture, { ...briefOf(picture), ...part }, false);
  if (!changed.ok) throw new Error(changed.message);
}
const setFinish = (picture: string, part: Partial<Finish>) =>
  change(picture, { finish: { ...briefOf(picture).finish, ...part } });
function newPicture(): string {
  const made = addPicture(first);
  if (!made.ok) throw new Error(made.message);
  return made.value.id;
}
async function ended(id: string) {
  for (const from = Date.now(); Date.now() - from < 100_000; ) {
    const row = findProof(id)!;
    if (row.state === 'done') return row;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('ended: expected the proof to end in time');
}
async function render(picture: string): Promise<string> {
  const asked = requestProof(picture);
  if (!asked.ok) throw new Error(asked.message);
  return (await ended(asked.value.id)).id;
}
async function file(proof: string, more: Partial<Parameters<typeof deliverProof>[1]> = {}) {
  const made = await deliverProof(proof, { ...FILE, ...more });
  if (!made.ok) throw new Error(made.message);
  return made.value;
}
/** Mean displayed light of a file, linear, by channel. */
async function meanOf(proof: string): Promise<number[]> {
  const { path } = await file(proof);
  const { data: raw, info } = await sharp(path)
    .toColourspace('rgb16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  const codes = new Uint16Array(raw.buffer, raw.byteOffset, raw.byteLength / 2);
  const sums = [0, 0, 0];
  for (let i = 0; i < codes.length; i += info.channels)
    for (let c = 0; c < 3; c++) sums[c] = sums[c]! + decodeSrgb(codes[i + c]! / 65_535);
  return sums.map((sum) => sum / (SIZE.width_px * SIZE.height_px));
}
const lamp = (name: string, x: number, kelvin: number): Partial<Brief['lamps']['added'][number]> => ({
  name,
  form: 'point',
  position_m: [x, 1.2, 1.5],
  lumen: 4000,
  kelvin
});
const PLAIN = (finish: Finish): Finish['tone'] => ({ ...finish.tone, curve: 'plain' });

beforeAll(async () => {
  service = spawn(process.execPath, ['build/render-service.mjs'], {
    env: { ...process.env, SPHAERA_ROOT: process.cwd(), SPHAERA_DATA: data },
    stdio: 'inherit'
  });
  const { sha256 } = await put('incoming', await boxGlb({ size: 0.4 }));
  const made = await createProject({
    name: PROJECT,
    files: [{ upload: sha256, name: 'my_box.glb' }],
    unit: 'm',
    up: 'y'
  });
  if (!made.ok) throw new Error(made.message);
  first = made.value.pictures[0]!;
  const brief = briefOf(first);
  change(first, {
    size: SIZE,
    exposure: { ev100: 7 },
    surroundings: { ...SURROUNDINGS_DEFAULTS.uniform, radiance: 20 },
    lamps: {
      ...brief.lamps,
      added: [lamp('Left lamp', -1, 2700), lamp('Right lamp', 1, 6000)] as Brief['lamps']['added']
    },
    quality: { ...brief.quality, samples: 256, scale: 1, grain: null, layers: true, firefly: null },
    finish: { ...brief.finish, denoise: 0, tone: PLAIN(brief.finish) }
  });
}, 60_000);
afterAll(() => {
  service.kill('SIGKILL');
  closeDatabase();
});

describe('the finish of a proof', () => {
  it('with a lamp off, brighter or warmer afterwards is a fresh render of that light, within 1 %', async () => {
    const picture = newPicture();
    const film = await render(picture);
    const { lamps } = briefOf(picture);
    const cases = [
      { dimmer: { on: false, dim_ev: 0, warmth_mired: 0 }, lamp: { on: false, dim_ev: 0, kelvin: null } },
      { dimmer: { on: true, dim_ev: 1, warmth_mired: 0 }, lamp: { on: true, dim_ev: 1, kelvin: null } }
    ];
    const rendered = await meanOf(film);
    for (const { dimmer, lamp: setting } of cases) {
      setFinish(picture, { lamps: [{ group: 'Left lamp', ...dimmer }] });
      const relit = await meanOf(film);
      const fresh = newPicture();
      change(fresh, { lamps: { ...lamps, groups: [{ group: 'Left lamp', photometry: null, ...setting }] } });
      const again = await meanOf(await render(fresh));
      for (let c = 0; c < 3; c++) expect(Math.abs(relit[c]! / again[c]! - 1)).toBeLessThan(0.01);
      // it is a lamp that matters
      expect(Math.abs(relit[0]! / rendered[0]! - 1)).toBeGreaterThan(0.1);
    }
    setFinish(picture, { lamps: [{ group: 'Left lamp', on: true, dim_ev: 0, warmth_mired: 100 }] });
    const warm = await meanOf(film);
    expect(warm[0]! / warm[2]!).toBeGreaterThan(1.05 * (rendered[0]! / rendered[2]!));
  }, 200_000);

  it('is kept as a new proof of the same film, whose file is the one that was handed over before', async () => {
    const picture = newPicture();
    const film = await render(picture);
    setFinish(picture, {
      exposure_ev: 0.5,
      lens: { ...briefOf(picture).finish.lens, glow: 0.1, vignette_ev: 1 },
      tone: { ...briefOf(picture).finish.tone, curve: 'photographic', shadows: 0.4 }
    });
    const before = await file(film);
    expect(before.name).toContain('finished');
    const kept = finishProofOf(picture, film);
    if (!kept.ok) throw new Error(kept.message);
    expect(kept.value.id).not.toBe(film);
    const row = await ended(kept.value.id);
    expect(row.film_sha256).toBe(findProof(film)!.film_sha256);
    const own = await file(row.id, { finish: 'proof' });
    expect(own.name).not.toContain('finished');
    expect(Buffer.compare(await readFile(own.path), await readFile(before.path))).toBe(0);
    // as the proof itself is finished, the first one is as it was
    const asIt = await file(film, { finish: 'proof' });
    expect(Buffer.compare(await readFile(asIt.path), await readFile(before.path))).not.toBe(0);
    expect(finishProofOf(picture, 'nowhere')).toMatchObject({ ok: false });
  }, 200_000);

  it('on the stage is what its file has, to one code of 255; denoised, with lamps dimmed', async () => {
    const picture = newPicture();
    setFinish(picture, { denoise: 1 });
    const brief = briefOf(picture);
    change(picture, { quality: { ...brief.quality, samples: 32 } });
    const film = await render(picture);
    expect(findProof(film)!.denoise_share).toBe(1);
    const { finish } = briefOf(picture);
    setFinish(picture, {
      denoise: 0.8,
      lamps: [{ group: 'Right lamp', on: true, dim_ev: -1.5, warmth_mired: 50 }],
      tone: { ...finish.tone, curve: 'crisp', highlights: -0.3, shadows: 0.2 },
      lens: { ...finish.lens, glow: 0.06 },
      surface: { ...finish.surface, sharpen: 0.6, texture: 'film' }
    });
    const asked = await stageFilm(film, { denoise: 0.8, masks: [], settled: true });
    if (!asked.ok) throw new Error(asked.message);
    const bytes = await readFile(asked.value);
    const stage = openStageFilm(new Uint8Array(bytes).buffer);
    expect(stage.groups).toEqual(['surroundings', 'sun', 'Left lamp', 'Right lamp']);
    expect(Math.abs(stage.luminanceRatio! - 1)).toBeLessThan(0.02);
    const shown = new StageDeveloper(stage).develop(briefOf(picture).finish);
    const { path } = await file(film, { bits: 8 });
    const exported = await sharp(path).removeAlpha().raw().toBuffer();
    let [most, differing] = [0, 0];
    for (let i = 0; i < SIZE.width_px * SIZE.height_px; i++)
      for (let c = 0; c < 3; c++) {
        const apart = Math.abs(shown.pixels[i * 4 + c]! - exported[i * 3 + c]!);
        most = Math.max(most, apart);
        if (apart > 0) differing++;
      }
    expect(most).toBeLessThanOrEqual(1);
    expect(differing).toBeLessThan(0.2 * exported.length);
    // the same film is read once
    expect(await stageFilm(film, { denoise: 0.8, masks: [], settled: true })).toEqual(asked);
  }, 200_000);

  it('is proposed by a meter: a picture that is too dark is made lighter, and the proposal of the proposal is none', async () => {
    const picture = newPicture();
    change(picture, { exposure: { ev100: 11 } });
    const film = await render(picture);
    const asked = await stageFilm(film, { denoise: 1, masks: [], settled: false });
    if (!asked.ok) throw new Error(asked.message);
    const staged = openStageFilm(new Uint8Array(await readFile(asked.value)).buffer);
    const { finish } = briefOf(picture);
    const light = stageLight(staged, staged.small, finish, 0, staged.small.height);
    const proposed = proposeFinish(light, finish)!;
    expect(proposed.changes.exposure_ev).toBeGreaterThan(0.5);
    expect(proposeFinish(light, { ...finish, ...proposed.changes })!.changes).toEqual(proposed.changes);
    expect(proposeFinish(new Float32Array(light.length), finish)).toBeNull();
  }, 100_000);

  it('is written by the command, as the application hands it over; what is wrong is told in a line', async () => {
    const picture = newPicture();
    const film = await render(picture);
    const { name } = viewPicture(picture)!.picture;
    const finish = { exposure_ev: 1, tone: { curve: 'gentle', contrast: 0.1 } };
    setFinish(picture, { exposure_ev: 1, tone: { ...BRIEF_DEFAULTS.finish.tone, curve: 'gentle', contrast: 0.1 } });
    const wanted = await file(film, { bits: 16, kind: 'tif' });
    await writeFile(join(data, 'finish.json'), JSON.stringify(finish));
    await writeFile(join(data, 'odd.json'), JSON.stringify({ tone: { curve: 'odd' } }));
    const command = (...more: string[]) =>
      spawnSync(process.execPath, ['build/cli.mjs', 'finish', name, '--project', PROJECT, ...more], {
        encoding: 'utf8',
        env: { ...process.env, SPHAERA_ROOT: process.cwd(), SPHAERA_DATA: data }
      });
    const out = join(data, 'finished.tif');
    const made = command('--finish', join(data, 'finish.json'), '--out', out, '--bits', '16');
    expect([made.status, made.stderr]).toEqual([0, '']);
    expect(Buffer.compare(await readFile(out), await readFile(wanted.path))).toBe(0);
    const icc = join(data, 'printer.icc');
    await writeFile(icc, await pressIcc());
    const inks = command('--out', out, '--colors', 'press', '--profile', icc);
    expect([inks.status, inks.stderr]).toEqual([0, '']);
    expect((await sharp(out).metadata()).space).toBe('cmyk');
    const refusals: [string[], string][] = [
      [['--out', out, '--colors', 'press'], 'say which press the inks are for'],
      [['--out', out, '--colors', 'press', '--profile', join(data, 'odd.json')], 'it is not an ICC profile'],
      [['--out', join(data, 'x.png'), '--colors', 'press', '--profile', icc], 'does not go with'],
      [['--finish', join(data, 'odd.json'), '--out', out], 'tone.curve must be one of'],
      [['--proof', '77', '--out', out], 'has no proof 77'],
      [['--out', join(data, 'x.gif')], '--out must end in one of'],
      [['--finish', join(data, 'nothing.json'), '--out', out], 'cannot read the finish']
    ];
    for (const [args, says] of refusals) {
      const { status, stderr } = command(...args);
      expect([status, stderr.split('\n').length]).toEqual([2, 2]);
      expect(stderr).toContain(says);
    }
  }, 100_000);

  it('takes a colour table of another program, and refuses what is none with the line that is wrong', async () => {
    const picture = newPicture();
    const film = await render(picture);
    const grey = ['LUT_3D_SIZE 2'];
    for (let i = 0; i < 8; i++) {
      const y = 0.2 * (i & 1) + 0.7 * ((i >> 1) & 1) + 0.1 * (i >> 2);
      grey.push(`${y} ${y} ${y}`);
    }
    const bring = async (text: string) => addTable((await put('incoming', Buffer.from(text))).sha256, 'look.cube');
    const made = await bring(grey.join('\n'));
    if (!made.ok) throw new Error(made.message);
    expect(made.value.name).toBe('look');
    setFinish(picture, { table: { ...made.value, amount: 1 } });
    const { channels } = await sharp((await file(film)).path).stats();
    expect(Math.abs(channels[0]!.mean - channels[2]!.mean)).toBeLessThan(channels[0]!.mean * 1e-3);
    // as the stage has it
    const asked = await stageFilm(film, { denoise: 0, masks: [], settled: false });
    if (!asked.ok) throw new Error(asked.message);
    const stage = openStageFilm(new Uint8Array(await readFile(asked.value)).buffer);
    const table = parseCube(grey.join('\n'));
    const { pixels } = new StageDeveloper(stage).develop(briefOf(picture).finish, { table });
    expect(Math.abs(pixels[0]! - pixels[2]!)).toBeLessThanOrEqual(1);
    expect(await bring('LUT_3D_SIZE 2\n0 0 zero')).toMatchObject({
      ok: false,
      message: '"look.cube" cannot be used as a colour table: line 2: expected three numbers'
    });
    setFinish(picture, { table: { file: 'f'.repeat(64), name: 'Gone', amount: 1 } });
    expect(requestProof(picture)).toMatchObject({
      ok: false,
      message: expect.stringContaining('"Gone" is no longer there') as string
    });
  }, 100_000);

  it('is handed over in the inks of a press whose profile was brought in, as the stage shows it, and in Display P3', async () => {
    const picture = newPicture();
    const film = await render(picture);
    const bring = async (bytes: Uint8Array, name: string) =>
      addPressProfile((await put('incoming', bytes)).sha256, name);
    expect(await bring(new TextEncoder().encode('nothing of the kind'), 'press.icc')).toEqual({
      ok: false,
      code: 'refused',
      message: '"press.icc": it is not an ICC profile'
    });
    const icc = await pressIcc();
    const damaged = icc.slice();
    damaged.fill(0, 400, 4000);
    expect(await bring(damaged, 'press.icc')).toMatchObject({ ok: false, code: 'refused' });
    const made = await bring(icc, 'press.icc');
    if (!made.ok) throw new Error(made.message);
    expect(made.value.name).toBe('Chemical proof');
    const press = made.value.sha256;
    const inks = await file(film, { kind: 'tif', colors: 'press', press });
    expect(inks.name).toContain('cmyk');
    expect(await sharp(inks.path).metadata()).toMatchObject({
      space: 'cmyk',
      channels: 4,
      density: expect.any(Number) as number
    });
    const colours = await pressColoursFile(press);
    const asked = await stageFilm(film, { denoise: 0, masks: [], settled: false });
    if (!asked.ok || !colours.ok) throw new Error('the stage and the press must be there');
    const stage = openStageFilm(new Uint8Array(await readFile(asked.value)).buffer);
    const proof = pressProof(unpackPress(new Uint8Array(await readFile(colours.value)).buffer));
    const { pixels } = new StageDeveloper(stage).develop(briefOf(picture).finish, { press: { proof, marks: false } });
    const seen = await sharp(inks.path).toColourspace('srgb').raw().toBuffer();
    let apart = 0;
    for (let i = 0; i < seen.length / 3; i++)
      for (let c = 0; c < 3; c++) apart += Math.abs(seen[i * 3 + c]! - pixels[i * 4 + c]!);
    expect(apart / seen.length).toBeLessThan(2);
    const shares: number[] = [];
    const told = await deliverProof(film, { ...FILE, kind: 'jpg' }, { onProgress: (share) => shares.push(share) });
    expect(told.ok).toBe(true);
    expect(shares.length).toBeGreaterThan(1);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    const wide = await file(film, { colors: 'p3' });
    expect(wide.name).toContain('display-p3');
    const deliver = (more: Partial<Parameters<typeof deliverProof>[1]>) => deliverProof(film, { ...FILE, ...more });
    expect(await deliver({ kind: 'png', colors: 'press', press })).toMatchObject({
      message: 'PNG does not hold the inks of a press; take TIFF or PDF'
    });
    expect(await deliver({ kind: 'tif', colors: 'press', press: null })).toMatchObject({
      message: 'choose the profile of the press, or bring it in'
    });
  }, 200_000);

  it('is given to all pictures of a project, each of which keeps its background', async () => {
    const [one, other] = [newPicture(), newPicture()];
    setFinish(other, { background: { kind: 'plain', lightness: 80 } });
    setFinish(one, { exposure_ev: 0.7, background: { kind: 'clear' } });
    const given = giveFinish(one);
    expect(given.ok && given.value.pictures).toBeGreaterThan(1);
    expect(briefOf(other).finish).toMatchObject({ exposure_ev: 0.7, background: { kind: 'plain', lightness: 80 } });
    expect(giveFinish(one)).toEqual({ ok: true, value: { pictures: 0 } });
    expect(viewPicture(other)!.picture.canUndo).toBe(true);
  });

  it('waits for a film that is complete, in a sentence', async () => {
    const picture = newPicture();
    change(picture, { quality: { ...briefOf(picture).quality, samples: 4096 } });
    const asked = requestProof(picture);
    if (!asked.ok) throw new Error(asked.message);
    expect(await stageFilm(asked.value.id, { denoise: 1, masks: [], settled: false })).toMatchObject({
      ok: false,
      message: expect.stringContaining('not complete yet') as string
    });
    expect(await stageFilm('nowhere0', { denoise: 1, masks: [], settled: false })).toMatchObject({ ok: false });
  });
});
