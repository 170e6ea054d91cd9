/** What can be wrong with the place that data is kept on, and what is said of it. */
export const STORAGE_STATES = ['fine', 'full', 'read_only', 'locked'] as const;
export type StorageState = (typeof STORAGE_STATES)[number];
export type StorageTrouble = Exclude<StorageState, 'fine'>;

export const STORAGE_SENTENCES: Record<StorageTrouble, string> = {
  full: 'the disk with Sphaera’s data is full. What is saved is safe; make room, and it goes on by itself',
  read_only:
    'Sphaera may not write to the folder with its data. What is saved is safe; allow writing there, and it goes on by itself',
  locked: 'another program holds Sphaera’s database. What is saved is safe; try it again when that program is done'
};

/** Of a render or another job that was broken off by it. */
export const isStorageTrouble = (code: string): code is StorageTrouble => code in STORAGE_SENTENCES;

const ERRORS: readonly [RegExp, StorageTrouble][] = [
  [/^(ENOSPC|EDQUOT|SQLITE_FULL)$/, 'full'],
  [/^(EROFS|EACCES|EPERM|SQLITE_READONLY|SQLITE_CANTOPEN|SQLITE_PERM)/, 'read_only'],
  [/^SQLITE_(BUSY|LOCKED)/, 'locked']
];

/** The trouble that an error of Node or SQLite tells of; null for every other error. */
export function storageTroubleOf(error: unknown): StorageTrouble | null {
  const code = (error as { code?: unknown } | null)?.code;
  if (typeof code !== 'string') return null;
  return ERRORS.find(([pattern]) => pattern.test(code))?.[1] ?? null;
}
