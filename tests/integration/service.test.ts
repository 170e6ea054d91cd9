import { type ChildProcess, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtemp, open, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { TILE_PX, tileFloats } from '../../src/core/film/film';
import type { Finish } from '../../src/core/brief/brief';
import { boxGlb } from '../support/glb';

// the use cases read their data folder when they are loaded
const data = await mkdtemp(join(tmpdir(), 'sphaera-service-'));
vi.stubEnv('SPHAERA_DATA', data);
const { filmPath, screenPath } = await import('../../src/server/files/proof-files');
const { put } = await import('../../src/server/files/content-store');
const { createProject } = await import('../../src/server/usecases/create-project');
const { addPicture } = await import('../../src/server/usecases/add-picture');
const { changeBrief } = await import('../../src/server/usecases/change-brief');
const { requestProof } = await import('../../src/server/usecases/request-proof');
const { deliverProof } = await import('../../src/server/usecases/deliver-proof');
const PLAIN_PNG = {
  kind: 'png',
  bits: 8,
  colors: 'srgb',
  press: null,
  long_px: null,
  half: false,
  pictureOnly: false,
  quality: 94,
  background: 'own',
  finish: 'proof',
  asRendered: false,
  cropMarks: false,
  about: null,
  pattern: ''
} as const;
const { continueProof, stopProof } = await import('../../src/server/usecases/stop-proof');
const { viewPicture } = await import('../../src/server/usecases/view-workspace');
const { findProof } = await import('../../src/server/store/proofs');
const { sqliteQueue } = await import('../../src/server/store/job-queue');
const { closeDatabase, database } = await import('../../src/server/store/database');

const SLOT_BYTES = tileFloats(TILE_PX * TILE_PX, 0) * 4;
let service: ChildProcess | null = null;
const begin = (more: Record<string, string> = {}) => {
  service = spawn(process.execPath, ['build/render-service.mjs'], {
    env: { ...process.env, SPHAERA_ROOT: process.cwd(), SPHAERA_DATA: data, ...more },
    stdio: 'inherit'
  });
};
const end = async (signal: NodeJS.Signals) => {
  const child = service!;
  service = null;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill(signal);
  await gone;
};
async function until<T>(what: () => T | null | undefined | false, ms = 100_000): Promise<T> {
  for (const from = Date.now(); Date.now() - from < ms; ) {
    const value = what();
    if (value) return value;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('until: expected it to come true in time');
}

let first: string;
/** A picture of the test's own, as the first one is. */
function newPicture(): string {
  const made = addPicture(first);
  if (!made.ok) throw new Error(made.message);
  return made.value.id;
}
const briefOf = (picture: string) => viewPicture(picture)!.picture.brief;
/** Changes a brief and asks for a proof of it. */
function ask(picture: string, samples: number, finish: Partial<Finish> = {}): string {
  const brief = briefOf(picture);
  const changed = changeBrief(
    picture,
    {
      ...brief,
      size: { width_px: 192, height_px: 144 },
      quality: { ...brief.quality, samples, scale: 1 },
      finish: { ...brief.finish, ...finish }
    },
    false
  );
  if (!changed.ok) throw new Error(changed.message);
  const proof = requestProof(picture);
  if (!proof.ok) throw new Error(proof.message);
  return proof.value.id;
}
const ended = (id: string) =>
  until(() => {
    const row = findProof(id)!;
    return row.state === 'done' && row;
  });

beforeAll(async () => {
  const { sha256 } = await put('incoming', await boxGlb({ size: 0.4 }));
  const made = await createProject({ files: [{ upload: sha256, name: 'my_box.glb' }], unit: 'm', up: 'y' });
  if (!made.ok) throw new Error(made.message);
  first = made.value.pictures[0]!;
});
beforeEach(() => {
  if (!service) begin();
});
afterAll(async () => {
  if (service) await end('SIGKILL');
  closeDatabase();
});

describe('the render service', () => {
  it('continues after SIGKILL in the middle: the film ends with the same bytes as an undisturbed one', async () => {
    // pictures do not share proofs, so the same brief is rendered twice
    const expected = (await ended(ask(newPicture(), 96))).film_sha256;
    expect(expected).toMatch(/^[0-9a-f]{64}$/);
    await end('SIGTERM');
    const id = ask(newPicture(), 96);
    let kills = 0;
    let last = 0;
    while (kills < 2) {
      begin();
      await until(() => (findProof(id)?.samples ?? 0) > last || findProof(id)?.state === 'done');
      if (findProof(id)?.state === 'done') break;
      last = findProof(id)!.samples;
      await end('SIGKILL');
      kills++;
    }
    expect(kills).toBeGreaterThan(0);
    if (!service) begin();
    await ended(id);
    expect(sqliteQueue.ofProof(id)!.fence).toBeGreaterThan(1);
    expect(findProof(id)!.film_sha256).toBe(expected);
    // three services one after another, each waiting for the lease of the one before
  }, 300_000);

  it('finishes a film without rendering when only the finish differs, and finds what is there already', async () => {
    const picture = newPicture();
    const rendered = await ended(ask(picture, 24));
    expect(requestProof(picture)).toMatchObject({ ok: true, value: { id: rendered.id, state: 'done' } });
    const id = ask(picture, 24, { white: { kelvin: 2500, tint: 0 } });
    expect(id).not.toBe(rendered.id);
    const finished = await ended(id);
    expect(finished).toMatchObject({ film_sha256: rendered.film_sha256, rays: rendered.rays, samples: 24 });
    const [before, after] = await Promise.all([rendered.id, id].map((proof) => sharp(screenPath(proof)).stats()));
    // what 2,500 K makes white is blue by daylight
    expect(after!.channels[2]!.mean - after!.channels[0]!.mean).toBeGreaterThan(
      before!.channels[2]!.mean - before!.channels[0]!.mean + 20
    );
    expect(requestProof(picture)).toMatchObject({ ok: true, value: { id } });
    expect(viewPicture(picture)!.proofs).toHaveLength(2);
  });

  it('saves what there is as a proof with a picture and a grain when it is stopped', async () => {
    const id = ask(newPicture(), 20_000);
    await until(() => (findProof(id)?.samples ?? 0) >= 4);
    expect(stopProof(id).ok).toBe(true);
    await until(() => findProof(id)?.state === 'kept');
    const stopped = findProof(id)!;
    expect(stopped.samples).toBeGreaterThan(0);
    expect(stopped.samples).toBeLessThan(20_000);
    expect(stopped.grain).toBeGreaterThan(0);
  });

  it('continues a stopped proof from where it was, to the film of one that was never stopped', async () => {
    const plain = await ended(ask(newPicture(), 96));
    const id = ask(newPicture(), 96);
    await until(() => (findProof(id)?.samples ?? 0) >= 4);
    stopProof(id);
    await until(() => findProof(id)?.state === 'kept');
    expect(findProof(id)!.samples).toBeLessThan(96);
    expect(continueProof(id).ok).toBe(true);
    expect(await ended(id)).toMatchObject({ film_sha256: plain.film_sha256, samples: 96 });
  }, 300_000);

  it('adds no samples to a film of another model or renderer, and says so', async () => {
    const id = ask(newPicture(), 20_000);
    await until(() => (findProof(id)?.samples ?? 0) >= 1);
    stopProof(id);
    await until(() => findProof(id)?.state === 'kept');
    const { samples } = findProof(id)!;
    database().prepare('UPDATE proofs SET key_sha256 = ? WHERE id = ?').run('0'.repeat(64), id);
    continueProof(id);
    const failed = await until(() => {
      const { state } = sqliteQueue.ofProof(id)!;
      return state.name === 'failed' && state;
    });
    expect(failed.message).toBe('It began with another model or another renderer; render the picture again.');
    expect(findProof(id)!.samples).toBe(samples);
  });

  it('waits while the disk is full or the database held, and goes on without having failed', async () => {
    await end('SIGTERM');
    // more than any disk has left
    begin({ SPHAERA_SPARE_BYTES: '1e18' });
    const id = ask(newPicture(), 8);
    await sleep(3000);
    expect(sqliteQueue.ofProof(id)!.state.name).toBe('waiting');
    await end('SIGTERM');
    begin();
    await until(() => sqliteQueue.ofProof(id)!.state.name === 'running');
    const other = new Database(join(data, 'sphaera.db'));
    other.exec('BEGIN IMMEDIATE');
    await sleep(12_000);
    expect(service!.exitCode).toBeNull();
    other.exec('ROLLBACK');
    other.close();
    await ended(id);
  }, 200_000);

  it('makes a damaged file anew, and never hands over a film that is not what was rendered', async () => {
    const picture = newPicture();
    const { id } = await ended(ask(picture, 8));
    const deliver = async () => {
      const made = await deliverProof(id, PLAIN_PNG);
      return made.ok
        ? createHash('sha256')
            .update(await readFile(made.value.path))
            .digest('hex')
        : made.code;
    };
    const whole = await deliver();
    const made = await deliverProof(id, PLAIN_PNG);
    if (!made.ok) throw new Error(made.message);
    await writeFile(made.value.path, 'a torn file');
    expect(await deliver()).toBe(whole);
    const film = await open(`${filmPath(id)}.film`, 'r+');
    // in both slots of the first tile: which of them counts depends on when it was saved
    for (const slot of [0, 1]) await film.write(Buffer.alloc(64, 0x5a), 0, 64, slot * SLOT_BYTES + 4096);
    await film.close();
    await rm(made.value.path);
    expect(await deliver()).toBe('damaged_film');
    const again = requestProof(picture);
    expect(again.ok && again.value.id).not.toBe(id);
    expect((await ended(again.ok ? again.value.id : id)).film_sha256).toBe(findProof(id)!.film_sha256);
  }, 100_000);

  it('pauses at stated samples to denoise, and ends with the film that it has without', async () => {
    const plain = await ended(ask(newPicture(), 20));
    // a share below 1 while it renders: a look that is being made
    database().exec(`
      CREATE TABLE IF NOT EXISTS looks (proof TEXT, samples REAL);
      CREATE TRIGGER IF NOT EXISTS looks_made AFTER UPDATE OF denoise_share ON proofs WHEN NEW.denoise_share < 1
      BEGIN INSERT INTO looks VALUES (NEW.id, NEW.samples); END;
    `);
    const paused = await ended(ask(newPicture(), 20, { denoise: 1, denoise_meanwhile: true }));
    const looks = database().prepare('SELECT samples FROM looks WHERE proof = ?').pluck().all(paused.id) as number[];
    expect(looks.some((samples) => samples >= 16 && samples < 20)).toBe(true);
    expect(paused).toMatchObject({ film_sha256: plain.film_sha256, denoise_share: 1, samples: 20 });
  });
});
