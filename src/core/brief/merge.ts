/** Joins two changes of one brief that were made without knowledge of each other, field by field. */
import { BRIEF, type Brief } from './fields/brief-fields';
import { canonicalJson } from './canonical-json';
import type { Field } from './fields/field';
import { type Change, changesBetween, fieldsOf, type Values } from './fields/walk';

const isSame = (a: unknown, b: unknown): boolean => canonicalJson(a) === canonicalJson(b);

/**
 * `mine` and `theirs` both began as `from`. A field that one of them changed is as that one has it; where both changed
 * one, mine stands. `overridden`: the changes of theirs that mine took back.
 */
export function mergeBriefs(from: Brief, mine: Brief, theirs: Brief): { brief: Brief; overridden: Change[] } {
  const brief = merge(BRIEF, from, mine, theirs) as Brief;
  const lost = new Set(changesBetween(BRIEF, theirs, brief).map((change) => change.path));
  const overridden = changesBetween(BRIEF, from, theirs).filter(
    ({ path }) =>
      [...lost].some((at) => at === path || path.startsWith(`${at}.`) || at.startsWith(`${path}.`)) &&
      touched(from, mine, path)
  );
  return { brief, overridden };
}

/** Whether mine changed a field or what is around it. */
const touched = (from: Brief, mine: Brief, path: string): boolean =>
  changesBetween(BRIEF, from, mine).some(
    (change) => change.path === path || path.startsWith(`${change.path}.`) || change.path.startsWith(`${path}.`)
  );

function merge(field: Field, from: unknown, mine: unknown, theirs: unknown): unknown {
  if (isSame(from, mine)) return theirs;
  if (isSame(from, theirs) || isSame(mine, theirs)) return mine;
  if (field.type === 'nullable')
    return [from, mine, theirs].some((value) => value === null) ? mine : merge(field.of, from, mine, theirs);
  const [before, own, other] = [from, mine, theirs].map((value) =>
    value && typeof value === 'object' ? fieldsOf(field, value as Values) : null
  );
  // another kind of surroundings is one choice, not one a field
  if (!before || before !== own || before !== other) return mine;
  const joined: Record<string, unknown> = { ...(mine as Values) };
  for (const [key, child] of Object.entries(before))
    joined[key] = merge(child, (from as Values)[key], (mine as Values)[key], (theirs as Values)[key]);
  return joined;
}
