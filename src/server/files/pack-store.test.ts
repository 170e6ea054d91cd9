import { mkdtempSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, it, vi } from 'vitest';

beforeEach(() => {
  vi.resetModules();
  vi.stubEnv('SPHAERA_DATA', mkdtempSync(join(tmpdir(), 'sphaera-packs-')));
  vi.stubEnv('SPHAERA_MAX_PACK_BYTES', '2500');
});

describe('scene packs on disk', () => {
  it('are made once for what decides them', async () => {
    const { findPack, hasPack, packKey } = await import('./pack-store');
    const key = packKey('model', { centre_m: [0, 0, 0], studio: null });
    expect(packKey('model', { studio: null, centre_m: [0, 0, 0] })).toBe(key);
    expect(packKey('model', { centre_m: [8, 0, 0], studio: null })).not.toBe(key);
    let made = 0;
    const build = () => {
      made++;
      return Uint8Array.from([1, 2, 3]);
    };
    expect(await hasPack(key)).toBe(false);
    expect([...(await findPack(key, build))]).toEqual([1, 2, 3]);
    expect([...(await findPack(key, build))]).toEqual([1, 2, 3]);
    expect(made).toBe(1);
    expect(await hasPack(key)).toBe(true);
  });

  it('give way to newer ones beyond the limit, those used longest ago first', async () => {
    const { hasPack, keepPack, packKey, packPath } = await import('./pack-store');
    const keys = [0, 1, 2].map((n) => packKey('model', { n }));
    await keepPack(keys[0]!, new Uint8Array(1000));
    await keepPack(keys[1]!, new Uint8Array(1000));
    utimesSync(packPath(keys[1]!)!, 1, 1); // used long ago
    await keepPack(keys[2]!, new Uint8Array(1000));
    expect(await Promise.all(keys.map(hasPack))).toEqual([true, false, true]);
    // one larger than the limit stays all the same: it is what was asked for
    const large = packKey('model', { large: true });
    await keepPack(large, new Uint8Array(5000));
    expect(await hasPack(large)).toBe(true);
  });

  it.each([
    ['empty', () => new Uint8Array(0)],
    ['cut off', (bytes: Uint8Array) => bytes.subarray(0, 500)],
    ['overwritten', (bytes: Uint8Array) => bytes.map((v, i) => (i < 100 ? 7 : v))]
  ])('are made again when the file is %s', async (_, damage) => {
    const { findPack, packKey, packPath } = await import('./pack-store');
    const { storageOf } = await import('../store/storage');
    const key = packKey('model', { damaged: true });
    const whole = Uint8Array.from({ length: 1000 }, (_v, i) => i);
    let made = 0;
    const build = () => {
      made++;
      return whole;
    };
    await findPack(key, build);
    writeFileSync(packPath(key)!, damage(whole));
    expect(await findPack(key, build)).toEqual(whole);
    expect(made).toBe(2);
    expect(Buffer.from(await findPack(key, build)).equals(whole)).toBe(true);
    expect([made, storageOf('packs') <= 1500]).toEqual([2, true]);
  });

  it('have no other names than their keys', async () => {
    const { packPath } = await import('./pack-store');
    expect(packPath('../../sphaera.db')).toBeNull();
    expect(packPath('a'.repeat(63))).toBeNull();
  });
});
