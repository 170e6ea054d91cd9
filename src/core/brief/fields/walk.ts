/** What follows from the definitions of fields: hashes' parts, changes, completion of what was kept, ranges of controls. */
import { assertNever } from '../../result/assert-never';
import { canonicalJson } from '../canonical-json';
import { defaultOf, type Decides, type Field, type NumberField, variantDefault, variantOf, type Word } from './field';

/** What a field takes from the section around it. */
interface Scope {
  decides: Decides;
  word: Word;
  amount: boolean;
}
const scopeOf = (field: Field, around: Scope): Scope => ({
  decides: field.decides ?? around.decides,
  word: field.word ?? around.word,
  amount: field.amount ?? around.amount
});
const OUTERMOST: Scope = { decides: 'film', word: 'viewpoint', amount: false };

export type Values = Readonly<Record<string, unknown>>;
const isDefault = (field: Field, value: unknown) => canonicalJson(value) === canonicalJson(defaultOf(field));

/** The fields that an object or a variant of a union has, with its kind where it has one. */
export function fieldsOf(field: Field, value: Values): Readonly<Record<string, Field>> | null {
  if (field.type === 'object') return field.fields;
  if (field.type !== 'union') return null;
  const key = variantOf(field, value);
  return key === null ? null : field.variants[key]!.fields;
}

/**
 * The part of a value whose fields are `wanted`, for hashing. A field at its default is left out, so a field that is added
 * later changes no hash as long as its default is what was there before it. Undefined when nothing is left.
 */
export function partOf(
  field: Field,
  value: unknown,
  wanted: (scope: { decides: Decides; amount: boolean }) => boolean,
  around: Scope = OUTERMOST
): unknown {
  const scope = scopeOf(field, around);
  if (value === null || value === undefined) return wanted(scope) && !isDefault(field, value) ? value : undefined;
  switch (field.type) {
    case 'number':
    case 'flag':
    case 'text':
    case 'choice':
    case 'vector':
      return wanted(scope) && !isDefault(field, value) ? value : undefined;
    case 'nullable': {
      // that it is not null says something even when all in it is at its default
      const part = partOf(field.of, value, wanted, scope);
      return part ?? (wanted(scope) ? value : undefined);
    }
    case 'list': {
      const items = value as readonly unknown[];
      if (items.length === 0 || !wanted(scope)) return undefined;
      return items.map((item) => partOf(field.of, item, wanted, scope) ?? null);
    }
    case 'object':
    case 'union': {
      const values = value as Values;
      const part: Record<string, unknown> = {};
      for (const [key, child] of Object.entries(fieldsOf(field, values) ?? {})) {
        const own = partOf(child, values[key], wanted, scope);
        if (own !== undefined) part[key] = own;
      }
      const variant = field.type === 'union' ? variantOf(field, values) : null;
      if (field.type === 'union' && variant !== field.initial && wanted(scope))
        part[field.choose ? 'shape' : 'kind'] = variant;
      return Object.keys(part).length > 0 ? part : undefined;
    }
    default:
      return assertNever(field, 'field');
  }
}

export interface Change {
  /** "quality.samples" */
  path: string;
  label: string;
  /** The word of the sentence that names it. */
  word: Word;
}

/** The fields in which two values differ, in the order of their definition. */
export function changesBetween(field: Field, a: unknown, b: unknown, path = '', around: Scope = OUTERMOST): Change[] {
  if (canonicalJson(a) === canonicalJson(b)) return [];
  const scope = scopeOf(field, around);
  const here: Change[] = [{ path, label: field.label, word: scope.word }];
  if (a === null || b === null || a === undefined || b === undefined) return here;
  switch (field.type) {
    case 'nullable':
      return changesBetween(field.of, a, b, path, scope);
    case 'object':
    case 'union': {
      const [before, after] = [fieldsOf(field, a as Values), fieldsOf(field, b as Values)];
      // another kind is one change, not one a field
      if (before === null || before !== after) return here;
      return Object.entries(before).flatMap(([key, child]) =>
        changesBetween(child, (a as Values)[key], (b as Values)[key], path ? `${path}.${key}` : key, scope)
      );
    }
    default:
      return here;
  }
}

/** A value that was kept, with the fields that it lacks at their defaults. Nothing is checked. */
export function completed(field: Field, value: unknown): unknown {
  if (value === undefined) return defaultOf(field);
  if (value === null) return null;
  switch (field.type) {
    case 'nullable':
      return completed(field.of, value);
    case 'list':
      return (value as readonly unknown[]).map((item) => completed(field.of, item));
    case 'object':
      return { ...(value as Values), ...completedFields(field.fields, value as Values) };
    case 'union': {
      const key = variantOf(field, value as Values);
      if (key === null) return variantDefault(field, field.initial);
      return { ...(value as Values), ...completedFields(field.variants[key]!.fields, value as Values) };
    }
    default:
      return value;
  }
}
const completedFields = (fields: Readonly<Record<string, Field>>, value: Values) =>
  Object.fromEntries(Object.entries(fields).map(([key, child]) => [key, completed(child, value[key])]));

/** The number field at a path like "quality.samples" or "surroundings.sky.sun_ev"; a union's variant is part of the path. */
export function numberField(root: Field, path: string): NumberField {
  let field: Field = root;
  for (const key of path.split('.')) {
    while (field.type === 'nullable' || field.type === 'list') field = field.of;
    const next: Field | undefined =
      field.type === 'object' ? field.fields[key] : field.type === 'union' ? field.variants[key] : undefined;
    if (!next) throw new Error(`numberField: there is no "${key}" in ${path}`);
    field = next;
  }
  while (field.type === 'nullable') field = field.of;
  if (field.type !== 'number') throw new Error(`numberField: ${path} is no number`);
  return field;
}
