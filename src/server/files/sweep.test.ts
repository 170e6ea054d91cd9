import { existsSync, mkdirSync, mkdtempSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { describe, expect, it, vi } from 'vitest';

const data = mkdtempSync(join(tmpdir(), 'sphaera-sweep-'));
vi.stubEnv('SPHAERA_DATA', data);
const { sweepFiles } = await import('./sweep');

const NOW = 1_800_000_000_000;
/** A file of a hundred bytes that was last written so many hours ago, in the data folder unless it says otherwise. */
function file(path: string, hours: number, root = data): string {
  const full = join(root, path);
  mkdirSync(dirname(full), { recursive: true });
  writeFileSync(full, Buffer.alloc(100));
  const then = NOW / 1000 - hours * 3600;
  utimesSync(full, then, then);
  utimesSync(dirname(full), then, then);
  return full;
}

describe('sweepFiles', () => {
  it('collects what nothing owns and is old, and leaves everything else', async () => {
    const temporary = mkdtempSync(join(tmpdir(), 'sphaera-sweep-tmp-'));
    const gone = [
      file('incoming/ab/abc', 25),
      file('incoming/.1.part', 2),
      file('models/.2.part', 2),
      file('models/cd/cde', 2),
      file('originals/ab/orphan', 2),
      file('tables/ab/orphan', 25),
      file('films/orphan/film.film', 2),
      file('films/owned/delivery-1.png', 25),
      file('films/other/delivery-2.png.3.part', 2),
      file('sphaera-import-x/model.glb', 25, temporary)
    ];
    const kept = [
      file('incoming/ab/new', 3),
      file('incoming/.4.part', 0.5),
      file('models/ef/owned', 200),
      file('models/ab/fresh', 0.5),
      file('originals/ef/owned', 200),
      file('tables/ef/owned', 200),
      file('tables/ab/new', 3),
      file('films/other/film.film', 200),
      file('films/fresh/film.film', 0.5),
      file('films/owned/delivery-5.png', 3),
      file('captured/ab/abc', 900),
      file('somebody-elses/model.glb', 900, temporary)
    ];
    const owners = {
      isProof: (id: string) => id === 'owned' || id === 'other',
      isModel: (sha: string) => sha === 'owned',
      isOriginal: (sha: string) => sha === 'owned',
      isTable: (sha: string) => sha === 'owned'
    };
    const swept = await sweepFiles(owners, NOW, temporary);
    expect(gone.filter(existsSync)).toEqual([]);
    expect(kept.filter((path) => !existsSync(path))).toEqual([]);
    expect(swept.modelBytes).toBe(100);
    expect(swept.files).toBe(gone.length);
  });
});
