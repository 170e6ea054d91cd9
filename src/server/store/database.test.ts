import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { storageTroubleOf } from '../../core/result/storage-trouble';

const data = await mkdtemp(join(tmpdir(), 'sphaera-database-'));
vi.stubEnv('SPHAERA_DATA', data);
const { closeDatabase, database, untilWritable } = await import('./database');
afterAll(closeDatabase);

describe('a database that another program holds', () => {
  it('is waited for without holding up this process, and no longer than asked', async () => {
    database();
    const other = new Database(join(data, 'sphaera.db'));
    other.exec('BEGIN IMMEDIATE');
    let turns = 0;
    const turning = setInterval(() => turns++, 5);
    expect(await untilWritable(300)).toBe(false);
    expect(turns).toBeGreaterThan(3);
    const waits = untilWritable(30_000);
    other.exec('ROLLBACK');
    expect(await waits).toBe(true);
    clearInterval(turning);
    other.close();
  });
});

describe('a database that cannot grow', () => {
  it('says so by a code that is told as a full disk, and keeps what it has', () => {
    const db = database();
    db.exec('CREATE TABLE filler (bytes BLOB)');
    const pages = db.pragma('page_count', { simple: true }) as number;
    db.pragma(`max_page_count = ${pages + 2}`);
    let trouble: unknown = null;
    try {
      for (let i = 0; i < 50; i++) db.prepare('INSERT INTO filler VALUES (randomblob(4000))').run();
    } catch (error) {
      trouble = storageTroubleOf(error);
    }
    expect(trouble).toBe('full');
    expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
    db.exec('DROP TABLE filler');
  });
});
