import { copyFileSync } from 'node:fs';
import { mkdtemp, open, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { CHANNELS, tilesOf } from '../../core/film/film';
import { DiskFilm, hashFilm } from './film-store';
import { MemoryFilm } from '../../core/film/store';

const tiles = tilesOf(100, 70);
const floats = (t: { width: number; height: number }) => t.width * t.height * CHANNELS;
const fill = (t: { index: number; width: number; height: number }, v: number) =>
  new Float32Array(floats(t)).fill(v + t.index);
let path: string;
beforeEach(async () => {
  path = join(await mkdtemp(join(tmpdir(), 'sphaera-film-')), 'film');
});

describe('a film on disk', () => {
  it('comes back as it was committed, and hashes like the same film in memory', async () => {
    const disk = await DiskFilm.open(path, tiles.length);
    const memory = new MemoryFilm();
    for (const t of tiles) {
      const state = { samples: 16, done: false, squaredGrain: 1 };
      await disk.write(t.index, fill(t, 1), state);
      await memory.write(t.index, fill(t, 1), state);
    }
    await disk.close();
    const again = await DiskFilm.open(path, tiles.length);
    expect(again.state(0)?.samples).toBe(16);
    expect([...(await again.read(tiles[1]!.index, floats(tiles[1]!)))]).toEqual([...fill(tiles[1]!, 1)]);
    expect(await hashFilm(again, 100, 70, tiles)).toBe(await hashFilm(memory, 100, 70, tiles));
    await again.close();
  });

  it('renders a damaged tile again, and keeps those that are whole', async () => {
    const film = await DiskFilm.open(path, tiles.length);
    for (const t of tiles) await film.write(t.index, fill(t, 1), { samples: 16, done: true, squaredGrain: 1 });
    await film.close();
    const handle = await open(`${path}.film`, 'r+');
    await handle.write(Buffer.from('damage'), 0, 6, 1000);
    await handle.close();
    const again = await DiskFilm.open(path, tiles.length);
    expect(tiles.filter((t) => again.state(t.index) === null).map((t) => t.index)).toEqual([0]);
    await again.close();
    await truncate(`${path}.film`, 0);
    const empty = await DiskFilm.open(path, tiles.length);
    expect(tiles.every((t) => empty.state(t.index) === null)).toBe(true);
    await empty.close();
  });

  it('a write that was never committed is as if it had not been, even torn', async () => {
    const film = await DiskFilm.open(path, tiles.length);
    const t = tiles[0]!;
    await film.write(t.index, fill(t, 1), { samples: 16, done: false, squaredGrain: 1 });
    await film.commit();
    await film.write(t.index, fill(t, 2), { samples: 32, done: true, squaredGrain: 1 });
    // killed here: another process opens the film, whose second slot holds anything
    const other = await DiskFilm.open(path, tiles.length);
    expect(other.state(t.index)).toMatchObject({ samples: 16, done: false });
    expect([...(await other.read(t.index, floats(t)))]).toEqual([...fill(t, 1)]);
    await other.close();
    await film.close();
  });

  it('killed at any moment, while tiles are written and commits are under way, it holds what its state says', async () => {
    const film = await DiskFilm.open(path, tiles.length);
    let ended = false;
    const write = async (t: (typeof tiles)[number]) => {
      for (let samples = 1; samples <= 24; samples++) {
        await film.write(t.index, new Float32Array(floats(t)).fill(samples), { samples, done: false, squaredGrain: 1 });
        await new Promise((resolve) => setTimeout(resolve, t.index)); // rendering the next
      }
    };
    const commit = async () => {
      while (!ended) await film.commit().then(() => new Promise(setImmediate));
    };
    let looked = 0;
    const look = async () => {
      while (!ended) {
        await new Promise(setImmediate);
        // nothing new begins between these two: what is on disk now is what a kill would leave
        try {
          copyFileSync(`${path}.state.json`, `${path}-${looked}.state.json`);
        } catch {
          continue; // not committed yet
        }
        copyFileSync(`${path}.film`, `${path}-${looked}.film`);
        looked++;
      }
    };
    const rest = [commit(), look()];
    await Promise.all(tiles.map(write));
    ended = true;
    await Promise.all(rest);
    await film.close();
    expect(looked).toBeGreaterThan(3);
    for (let i = 0; i < looked; i++) {
      const left = await DiskFilm.open(`${path}-${i}`, tiles.length);
      for (const t of tiles) {
        const state = left.state(t.index);
        if (state) expect(new Set(await left.read(t.index, floats(t)))).toEqual(new Set([state.samples]));
      }
      await left.close();
    }
  });

  it('takes a broken state file for no film and begins anew', async () => {
    const film = await DiskFilm.open(path, tiles.length);
    await film.write(0, fill(tiles.find((t) => t.index === 0)!, 1), { samples: 16, done: false, squaredGrain: 1 });
    await film.close();
    await writeFile(`${path}.state.json`, '[{');
    await truncate(`${path}.film`, 10);
    const again = await DiskFilm.open(path, tiles.length);
    expect(again.state(0)).toBeNull();
    await again.close();
  });

  it('the hash tells films apart by samples and by values', async () => {
    const hashes = new Set<string>();
    for (const [value, samples] of [
      [1, 16],
      [2, 16],
      [1, 32]
    ] as const) {
      const film = new MemoryFilm();
      for (const t of tiles) await film.write(t.index, fill(t, value), { samples, done: true, squaredGrain: 0 });
      hashes.add(await hashFilm(film, 100, 70, tiles));
    }
    expect(hashes.size).toBe(3);
  });
});
