/** Which rows of a model's tree a list shows. */
import { isWithin } from '../../core/scene/part-paths';
import type { ModelPart } from '../../core/scene/model-part';

export interface TreeRow {
  part: ModelPart;
  /** Has parts within it. */
  opens: boolean;
}

/**
 * Without a search: the outermost parts, and those within the opened ones. With one: all whose name has it, as a flat
 * list.
 */
export function treeRows(parts: readonly ModelPart[], opened: ReadonlySet<string>, search: string): TreeRow[] {
  const opens = (i: number) => (parts[i + 1]?.depth ?? 0) > parts[i]!.depth;
  const text = search.trim().toLowerCase();
  if (text !== '')
    return parts.flatMap((part, i) => (part.name.toLowerCase().includes(text) ? [{ part, opens: opens(i) }] : []));
  const rows: TreeRow[] = [];
  /** Parts deeper than this lie within one that is closed. */
  let shownTo = 0;
  parts.forEach((part, i) => {
    if (part.depth > shownTo) return;
    shownTo = part.depth + (opened.has(part.path) ? 1 : 0);
    rows.push({ part, opens: opens(i) });
  });
  return rows;
}

/** The parts that have to be open for one to be seen. */
export const partsAbove = (parts: readonly ModelPart[], path: string): string[] =>
  parts.filter((part) => part.path !== path && isWithin(path, part.path)).map((part) => part.path);
