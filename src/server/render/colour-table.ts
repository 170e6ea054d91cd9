/** The colour table of a finish, read from disk. */
import { readFile } from 'node:fs/promises';
import type { Finish } from '../../core/brief/brief';
import { BriefRefused } from '../../core/brief/refused';
import { type ColourTable, parseCube } from '../../core/color/table';
import { contentPath, isContentHash } from '../files/content-store';

const inApplication = (file: string): string => {
  if (!isContentHash(file)) throw new Error('the file must be the hash of a table that was brought in');
  return contentPath('tables', file);
};

/** Null for a finish without one. `pathOf`: where its file lies; in the application by its hash. */
export async function readTable(
  { table }: Pick<Finish, 'table'>,
  pathOf: (file: string) => string = inApplication
): Promise<ColourTable | null> {
  if (table === null || table.amount === 0) return null;
  try {
    return parseCube(await readFile(pathOf(table.file), 'latin1'));
  } catch (error) {
    throw new BriefRefused(
      'finish.table.file',
      `finish.table.file: the colour table cannot be read (${(error as Error).message}); bring it in again, or take it off`
    );
  }
}
