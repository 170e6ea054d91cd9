/** The colour table of a finish, read by the browser; the last one is kept. */
import type { Finish } from '../../../core/brief/brief';
import { type ColourTable, parseCube } from '../../../core/color/table';

let kept: { file: string; table: ColourTable } | null = null;

/** Null for a finish without one. */
export async function seenTable({ table }: Pick<Finish, 'table'>): Promise<ColourTable | null> {
  if (table === null || table.amount === 0) return null;
  if (kept?.file === table.file) return kept.table;
  const response = await fetch(`/api/tables/${table.file}`);
  if (!response.ok) throw new Error('the colour table is not there any more; bring it in again or take it off');
  kept = { file: table.file, table: parseCube(await response.text()) };
  return kept.table;
}
