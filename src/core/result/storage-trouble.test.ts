import { describe, expect, it } from 'vitest';
import { STORAGE_SENTENCES, storageTroubleOf } from './storage-trouble';

describe('the trouble that an error tells of', () => {
  // Codes: errno(3) and SQLite, Result and Error Codes.
  it.each([
    ['ENOSPC', 'full'],
    ['EDQUOT', 'full'],
    ['SQLITE_FULL', 'full'],
    ['EROFS', 'read_only'],
    ['EACCES', 'read_only'],
    ['SQLITE_READONLY', 'read_only'],
    ['SQLITE_READONLY_DIRECTORY', 'read_only'],
    ['SQLITE_CANTOPEN', 'read_only'],
    ['SQLITE_BUSY', 'locked'],
    ['SQLITE_BUSY_SNAPSHOT', 'locked'],
    ['SQLITE_CONSTRAINT_UNIQUE', null],
    ['ENOENT', null]
  ])('of %s is %s', (code, trouble) => {
    expect(storageTroubleOf(Object.assign(new Error('x'), { code }))).toBe(trouble);
  });
  it('is none of errors without a code', () => {
    expect([new Error('x'), null, undefined, 'SQLITE_BUSY'].map(storageTroubleOf)).toEqual([null, null, null, null]);
  });
  it('is said with what to do and without a full stop', () => {
    for (const sentence of Object.values(STORAGE_SENTENCES)) {
      expect(sentence).toMatch(/make room|allow writing|try it again/);
      expect(sentence).not.toMatch(/\.$/);
    }
  });
});
