/**
 * What users bring in and keep beside their pictures: photometric files, backgrounds, captured images, viewpoints,
 * parts of briefs; and what is said when it will not do.
 */
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { boxGlb } from '../support/glb';
import { flatHdr } from '../support/hdr';

const data = await mkdtemp(join(tmpdir(), 'sphaera-libraries-'));
vi.stubEnv('SPHAERA_DATA', data);
const { BRIEF_DEFAULTS, SURROUNDINGS_DEFAULTS } = await import('../../src/core/brief/brief');
const { THUMBNAIL_PX } = await import('../../src/core/brief/thumbnail-brief');
const { resolveSize } = await import('../../src/core/output/size');
const { standsAt, takePart } = await import('../../src/core/brief/kept-part');
const { put } = await import('../../src/server/files/content-store');
const { closeDatabase } = await import('../../src/server/store/database');
const { addBackdrop } = await import('../../src/server/usecases/add-backdrop');
const { addCaptured } = await import('../../src/server/usecases/add-captured');
const { addPhotometric } = await import('../../src/server/usecases/add-photometric');
const { addPicture } = await import('../../src/server/usecases/add-picture');
const { remove, rename } = await import('../../src/server/usecases/remove');
const { createProject } = await import('../../src/server/usecases/create-project');
const { attendJob } = await import('../../src/server/usecases/attend-job');
const { sqliteQueue } = await import('../../src/server/store/job-queue');
const { changeBrief } = await import('../../src/server/usecases/change-brief');
const { pictureThumbnail } = await import('../../src/server/usecases/picture-thumbnail');
const { keepPart } = await import('../../src/server/usecases/keep-part');
const { saveViewpoint } = await import('../../src/server/usecases/save-viewpoint');
const { sentBrief } = await import('../../src/server/usecases/sent-brief');
const { viewDesk } = await import('../../src/server/usecases/view-desk');
const { viewWorkspace } = await import('../../src/server/usecases/view-workspace');

let project = '';
let picture = '';
const NOT_THERE = 'f'.repeat(64);
const arrived = async (bytes: Uint8Array) => (await put('incoming', bytes)).sha256;
const workspace = () => viewWorkspace(project)!;
function taken<T>(outcome: { ok: true; value: T } | { ok: false; message: string }): T {
  if (!outcome.ok) throw new Error(outcome.message);
  return outcome.value;
}
const message = (outcome: { ok: true; value: unknown } | { ok: false; message: string }) =>
  outcome.ok ? 'nothing was wrong' : outcome.message;

beforeAll(async () => {
  const made = taken(
    await createProject({
      files: [{ upload: await arrived(await boxGlb({ size: 0.4 })), name: 'my_box.glb' }],
      unit: 'm',
      up: 'y'
    })
  );
  project = made.project;
  picture = made.pictures[0]!;
});
afterAll(async () => {
  closeDatabase();
  await rm(data, { recursive: true, force: true });
});

/** LM-63-2002, even to all sides, in one plane. */
const evenFile = (candela: string) =>
  Buffer.from(
    [
      'IESNA:LM-63-2002',
      '[LUMINAIRE] Halm globe',
      'TILT=NONE',
      '1 1000 1 5 1 1 2 0 0 0',
      '1 1 12',
      '0 45 90 135 180',
      '0',
      candela
    ].join('\r\n')
  );

describe('photometric files', () => {
  it('come in with their name, watts and flux: an even 100 cd is 400 pi lm', async () => {
    const added = taken(await addPhotometric(await arrived(evenFile('100 100 100 100 100')), 'globe.ies'));
    expect(added).toMatchObject({ name: 'Halm globe', watts: 12 });
    // CIE 1987 International Lighting Vocabulary: flux is intensity times solid angle
    expect(added.lumen / (400 * Math.PI)).toBeCloseTo(1, 2);
    expect(workspace().photometric).toEqual([added]);
    expect(taken(await addPhotometric(await arrived(evenFile('100 100 100 100 100')), 'again.ies')).sha256).toBe(
      added.sha256
    );
    expect(workspace().photometric).toHaveLength(1);
  });
  it('are refused with the line that is wrong, without light, and when they did not arrive', async () => {
    expect(message(await addPhotometric(await arrived(evenFile('100 100 dark 100 100')), 'odd.ies'))).toMatch(
      /^"odd\.ies", .*line 8/
    );
    expect(message(await addPhotometric(await arrived(evenFile('0 0 0 0 0')), 'dark.ies'))).toContain('gives no light');
    expect(message(await addPhotometric(NOT_THERE, 'lost.ies'))).toBe(
      '"lost.ies" was not uploaded completely. Choose it again'
    );
    expect(message(await addPhotometric(await arrived(Buffer.alloc(9 * 2 ** 20, 32)), 'novel.ies'))).toContain(
      'has 9 MB; photometric files are text of at most 8 MB'
    );
    expect(workspace().photometric).toHaveLength(1);
  });
});

describe('pictures behind the model', () => {
  it('come in upright under their name, and others are refused', async () => {
    // turned by its camera: 20 x 10 px as stored, 10 x 20 as seen
    const turned = await sharp({ create: { width: 20, height: 10, channels: 3, background: '#336699' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect(taken(await addBackdrop(await arrived(turned), 'Over the ridge.jpg', 'behind'))).toMatchObject({
      name: 'Over the ridge',
      width_px: 10,
      height_px: 20
    });
    expect(workspace().backdrops).toHaveLength(1);
    expect(
      message(await addBackdrop(await arrived(Buffer.from('not a picture at all')), 'notes.jpg', 'behind'))
    ).toMatch(/^"notes\.jpg" /);
    expect(message(await addBackdrop(NOT_THERE, 'lost.png', 'behind'))).toContain('was not uploaded completely');
  });
});

describe('captured images', () => {
  it('come in and light; one that is cut off, and a brief that names none, are refused', async () => {
    const { sha256 } = taken(await addCaptured(await arrived(flatHdr(64, 32)), 'Field.hdr', false));
    expect(workspace().captured).toMatchObject([{ sha256, name: 'Field', width_px: 64, height_px: 32 }]);
    expect(message(await addCaptured(await arrived(flatHdr(64, 32).subarray(0, 300)), 'half.hdr', false))).toContain(
      'cut off'
    );
    const brief = (file: string) => ({ ...BRIEF_DEFAULTS, surroundings: { ...SURROUNDINGS_DEFAULTS.captured, file } });
    expect(taken(sentBrief(project, brief(sha256))).brief.surroundings).toMatchObject({ file: sha256, most_px: null });
    expect(message(sentBrief(project, brief(NOT_THERE)))).toContain('choose a captured image');
    expect(message(sentBrief('no such project', brief(sha256)))).toContain('reload the page');
    expect(
      message(sentBrief(project, { ...BRIEF_DEFAULTS, surroundings: { ...brief(sha256).surroundings, most_px: 3 } }))
    ).toContain('surroundings.most_px');
  });
});

describe('what is kept under a name', () => {
  it('a viewpoint is there for all pictures, once', () => {
    const viewpoint = { ...BRIEF_DEFAULTS.viewpoint, position_m: [3, 1.6, 4] };
    taken(saveViewpoint(project, '  By the door ', viewpoint));
    expect(workspace().viewpoints).toMatchObject([{ name: 'By the door', viewpoint: { position_m: [3, 1.6, 4] } }]);
    expect(message(saveViewpoint(project, 'By the door', viewpoint))).toContain('already');
    expect(message(saveViewpoint(project, ' ', viewpoint))).toBe('give the viewpoint a name');
    expect(message(saveViewpoint(project, 'Odd', { ...viewpoint, focal_length_mm: -1 }))).toContain(
      'viewpoint.focal_length_mm'
    );
  });
  it('a step of quality is taken as it was kept, in every project; a cue stays in its own', async () => {
    const quality = { ...BRIEF_DEFAULTS.quality, samples: 77, grain: 3 };
    const kept = taken(keepPart(project, 'step', 'Fast for Mondays', { ...BRIEF_DEFAULTS, quality }));
    const brief = workspace().opened.picture.brief;
    expect(standsAt(kept.part, brief, 'step')).toBe(false);
    const after = { ...brief, ...takePart(kept.part, brief) };
    expect(after.quality).toMatchObject({ samples: 77, grain: 3 });
    expect(standsAt(kept.part, after, 'step')).toBe(true);
    taken(keepPart(project, 'cue', 'Evening', BRIEF_DEFAULTS));
    const other = taken(
      await createProject({
        files: [{ upload: await arrived(await boxGlb({ size: 0.5 })), name: 'other.glb' }],
        unit: 'm',
        up: 'y'
      })
    ).project;
    expect(workspace().kept.map((k) => k.name)).toEqual(['Fast for Mondays', 'Evening']);
    expect(viewWorkspace(other)!.kept.map((k) => k.name)).toEqual(['Fast for Mondays']);
    taken(remove('part', kept.id));
    expect(message(remove('part', kept.id))).toContain('no longer there');
    expect(viewWorkspace(other)!.kept).toEqual([]);
  });
  it('a destination becomes what it asks for', () => {
    const { part } = taken(
      keepPart(project, 'destination', 'Window of the shop', {
        ...BRIEF_DEFAULTS,
        size: { width_px: 900, height_px: 1600 }
      })
    );
    expect(part).toMatchObject({
      size: { width_px: 900, height_px: 1600 },
      seen: { destination: { name: 'Window of the shop', size: { width_px: 900, height_px: 1600 } } }
    });
  });
  it('is refused without a name, twice, of another kind, and when the brief is not one', () => {
    expect(message(keepPart(project, 'step', ' ', BRIEF_DEFAULTS))).toBe('give it a name');
    expect(message(keepPart(project, 'cue', 'Evening', BRIEF_DEFAULTS))).toContain('"Evening" is there already');
    expect(message(keepPart(project, 'step', 'Odd', { version: 1, quality: { samples: 0 } }))).toContain(
      'quality.samples'
    );
    expect(message(keepPart('no such project', 'step', 'Odd', BRIEF_DEFAULTS))).toContain('reload the page');
  });
});

describe('pictures of a project', () => {
  it('a further one begins as a copy, with a name that is free', () => {
    const [second, third] = [taken(addPicture(picture)), taken(addPicture(picture))];
    const first = workspace().opened.picture;
    expect([second.name, third.name]).toEqual([`${first.name}, 2`, `${first.name}, 3`]);
    expect(second.brief).toEqual(first.brief);
    expect(taken(rename('picture', second.id, '  Dome at dusk ')).name).toBe('Dome at dusk');
    expect(message(rename('picture', second.id, ''))).toBe('give it a name');
    expect(message(addPicture('nothing'))).toContain('reload the page');
  });
  it('one without a proof has a small picture of itself, rendered once for each state of its brief', async () => {
    const { id, brief } = workspace().opened.picture;
    const path = (await pictureThumbnail(id))!;
    const { width, height } = await sharp(path).metadata();
    const size = resolveSize(brief.size);
    expect(Math.max(width, height)).toBe(THUMBNAIL_PX);
    expect(width / height).toBeCloseTo(size.width_px / size.height_px, 1);
    const { channels } = await sharp(path).stats();
    expect(Math.max(...channels.map(({ stdev }) => stdev))).toBeGreaterThan(2);
    const made = (await stat(path)).mtimeMs;
    expect(await Promise.all([pictureThumbnail(id), pictureThumbnail(id)])).toEqual([path, path]);
    expect((await stat(path)).mtimeMs).toBe(made);
    const brighter = { ...brief.finish, exposure_ev: 2 };
    taken(await changeBrief(id, { ...brief, finish: brighter }, false));
    const other = (await pictureThumbnail(id))!;
    expect(other).not.toBe(path);
    const mean = async (of: string) => (await sharp(of).stats()).channels[1]!.mean;
    expect(await mean(other)).toBeGreaterThan(await mean(path));
    expect(await pictureThumbnail('nothing')).toBeNull();
  }, 120_000);
  it('the desk shows each project with what it has, and how much is kept', () => {
    const desk = viewDesk();
    expect(desk.projects.find((p) => p.id === project)).toMatchObject({
      name: 'My box',
      pictures: 3,
      revision: 1,
      first: { id: picture },
      lead: null,
      last_proof: null,
      running: null
    });
    expect(desk).toMatchObject({ running: null, waiting: 0, storage: { films: 0, films_bytes: 0 } });
    expect(desk.storage.models_bytes).toBeGreaterThan(0);
    expect(desk.storage.free_bytes).toBeGreaterThan(0);
  });
});

describe('attended jobs', () => {
  it('of one lane run one after the other, also after one that failed, and are in the queue while they run', async () => {
    const order: string[] = [];
    const step = (name: string) => async () => {
      order.push(`${name} begins`);
      expect(sqliteQueue.open('measure').map((job) => [job.kind, job.state.name])).toEqual([['measure', 'running']]);
      await Promise.resolve();
      order.push(`${name} ends`);
      if (name === 'b') throw new Error('b fell');
      return name;
    };
    const run = (name: string) => attendJob('measure', project, step(name));
    const [a, b, c] = await Promise.allSettled([run('a'), run('b'), run('c')]);
    expect(order).toEqual(['a begins', 'a ends', 'b begins', 'b ends', 'c begins', 'c ends']);
    expect([a!.status, b!.status, c!.status]).toEqual(['fulfilled', 'rejected', 'fulfilled']);
    expect(sqliteQueue.open('measure')).toEqual([]);
  });
});
