import { createHash } from 'node:crypto';
import { mkdtemp, readdir, readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { describe, expect, it, vi } from 'vitest';

const data = await mkdtemp(join(tmpdir(), 'sphaera-content-'));
vi.stubEnv('SPHAERA_DATA', data);
const { contentPath, FileTooLarge, has, isContentHash, put } = await import('./content-store');

const text = (of: string) => new TextEncoder().encode(of);
const hashOf = (of: string) => createHash('sha256').update(of).digest('hex');

describe('put', () => {
  it('stores a file under the hash of its content', async () => {
    const stored = await put('incoming', text('a model'));
    expect(stored).toEqual({ sha256: hashOf('a model'), bytes: 7, added: 7 });
    expect(await readFile(contentPath('incoming', stored.sha256), 'utf8')).toBe('a model');
    expect(await has('incoming', stored.sha256)).toBe(true);
    expect(await has('models', stored.sha256)).toBe(false);
  });

  it('gives a stream the same hash as its bytes, and the store grows by it once', async () => {
    await put('models', text('twice'));
    const again = await put('models', Readable.from([text('tw'), text('ice')]));
    expect(again).toEqual({ sha256: hashOf('twice'), bytes: 5, added: 0 });
  });

  it('refuses what is larger than its limit and leaves nothing behind', async () => {
    const large = put('captured', Readable.from([text('12345'), text('67890')]), 8);
    await expect(large).rejects.toBeInstanceOf(FileTooLarge);
    await expect(large).rejects.toMatchObject({ code: 'too_large' });
    expect(await readdir(join(data, 'captured'))).toEqual([]);
  });

  it('leaves nothing behind of an upload that breaks off', async () => {
    const broken = new Readable({
      read() {
        this.push('the first part');
        this.destroy(new Error('connection lost'));
      }
    });
    await expect(put('backdrops', broken)).rejects.toThrow('connection lost');
    expect(await readdir(join(data, 'backdrops'))).toEqual([]);
  });
});

describe('contentPath', () => {
  it('never makes a path of anything but a hash', () => {
    expect(isContentHash('../../etc/passwd')).toBe(false);
    expect(() => contentPath('models', '../../etc/passwd')).toThrow('expected a sha256');
    expect(() => contentPath('models', hashOf('a').toUpperCase())).toThrow('expected a sha256');
  });
});
