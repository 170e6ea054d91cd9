/**
 * Checks by the definitions of fields: each object becomes a class with the decorators of its fields, made once; unions and
 * lists choose among them. The message names the field, the allowed range and the value.
 */
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf
} from 'class-validator';
import { defaultOf, type Field, type ObjectField, variantOf } from '../core/brief/fields/field';
import { assertNever } from '../core/result/assert-never';
import { type Result, ok } from '../core/result/result';
import { check, type Class, quoted, refuse } from './validate';

/** A value of a field, checked and completed. `place`: "brief.quality". */
export function parseField(field: Field, input: unknown, place: string): Result<unknown> {
  if (input === undefined) return ok(defaultOf(field));
  switch (field.type) {
    case 'nullable':
      return input === null ? ok(null) : parseField(field.of, input, place);
    case 'list':
      return parseList(field.of, input, place, field.maxItems, field.what);
    case 'object':
      return parseObject(field, input, place, null);
    case 'union': {
      if (!isObject(input)) return refuse(`${place} must be an object, got ${quoted(input)}`);
      const kinds = Object.keys(field.variants);
      // a kind that is left out is the default's
      const given = field.choose || 'kind' in input ? input : { kind: field.initial, ...input };
      const kind = variantOf(field, given);
      if (kind === null)
        return refuse(
          `${place}.kind must be one of ${kinds.join(', ')}, got ${quoted((given as { kind?: unknown }).kind)}`
        );
      return parseObject(field.variants[kind]!, given, place, field.choose ? null : kind);
    }
    default: {
      // a class of this one field says what is wrong with it
      const at = place.lastIndexOf('.');
      const key = place.slice(at + 1);
      const checked = check(classOf({ [key]: field }), { [key]: input }, place.slice(0, at));
      return checked.ok ? ok((checked.value as Record<string, unknown>)[key]) : checked;
    }
  }
}

const isObject = (input: unknown): input is Record<string, unknown> =>
  input !== null && typeof input === 'object' && !Array.isArray(input);

function parseObject(field: ObjectField, input: unknown, place: string, kind: string | null): Result<unknown> {
  if (!isObject(input)) return refuse(`${place} must be an object, got ${quoted(input)}`);
  const given = field.complete ? field.complete(input) : input;
  const checked = check(classFor(field, kind), given, place);
  if (!checked.ok) return checked;
  const value: Record<string, unknown> = { ...(checked.value as object) };
  for (const [key, child] of Object.entries(field.fields)) {
    if (!isNested(child)) continue;
    const part = parseField(child, given[key], `${place}.${key}`);
    if (!part.ok) return part;
    value[key] = part.value;
  }
  const wrong = field.check?.(value as never) ?? null;
  if (wrong !== null) return refuse(/^[a-z_]+ must /.test(wrong) ? `${place}.${wrong}` : `${place} ${wrong}`);
  return ok(value);
}

function parseList(item: Field, input: unknown, place: string, maxItems: number, what: string): Result<unknown[]> {
  if (!Array.isArray(input)) return refuse(`${place} must be a list of ${what}, got ${quoted(input)}`);
  if (input.length > maxItems) return refuse(`${place} has ${input.length} items; it holds ${maxItems}`);
  const out: unknown[] = [];
  for (const [i, one] of input.entries()) {
    if (item.type !== 'object') {
      const right = item.type === 'text' && typeof one === 'string' && one.length <= item.maxLength;
      if (!right) return refuse(`${place} must be a list of ${what}, got ${quoted(input)}`);
      out.push(one);
      continue;
    }
    const part = parseObject(item, one, `${place}[${i}]`, null);
    if (!part.ok) return part;
    out.push(part.value);
  }
  return ok(out);
}

/** Whether it is checked by itself, after the object that it is in. */
function isNested(field: Field): boolean {
  const inner = field.type === 'nullable' ? field.of : field;
  return inner.type === 'object' || inner.type === 'union' || inner.type === 'list';
}

const classes = new Map<ObjectField, Class<object>>();
function classFor(field: ObjectField, kind: string | null): Class<object> {
  const known = classes.get(field) ?? classOf(field.fields, kind);
  classes.set(field, known);
  return known;
}

/** A class with a decorated property for each field, at its default in a new instance. */
function classOf(fields: Readonly<Record<string, Field>>, kind: string | null = null): Class<object> {
  const defaults = Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, defaultOf(field)]));
  class Checked {
    constructor() {
      Object.assign(this, kind === null ? {} : { kind }, structuredClone(defaults));
    }
  }
  const decorate = (key: string, ...decorators: PropertyDecorator[]) => {
    for (const decorator of decorators) decorator(Checked.prototype, key);
  };
  if (kind !== null) decorate('kind', IsIn([kind], { message: `must be ${kind}` }));
  for (const [key, field] of Object.entries(fields)) {
    if (isNested(field)) decorate(key, IsOptional());
    else if (field.type === 'nullable')
      decorate(
        key,
        ValidateIf((o: Record<string, unknown>) => o[key] !== null),
        ...decoratorsOf(field.of)
      );
    else decorate(key, ...decoratorsOf(field));
  }
  return Checked;
}

function decoratorsOf(field: Field): PropertyDecorator[] {
  switch (field.type) {
    case 'number': {
      const { whole, min, max, unit } = field;
      const message = `must be a ${whole ? 'whole ' : ''}number from ${min} to ${max}${unit && !whole ? ` ${unit}` : ''}`;
      const isNumber = whole ? IsInt({ message }) : IsNumber({ allowInfinity: false, allowNaN: false }, { message });
      return [isNumber, Min(min, { message }), Max(max, { message })];
    }
    case 'flag':
      return [IsBoolean({ message: 'must be true or false' })];
    case 'text': {
      const message = field.must;
      return [
        IsString({ message }),
        MinLength(field.minLength, { message }),
        MaxLength(field.maxLength, { message: `must have at most ${field.maxLength} characters` }),
        ...(field.pattern ? [Matches(field.pattern, { message })] : [])
      ];
    }
    case 'choice':
      return [IsIn(field.values as string[], { message: `must be one of ${field.values.join(', ')}` })];
    case 'vector': {
      const message = `must be three numbers from ${field.min} to ${field.max}`;
      const each = { each: true, message };
      return [
        IsArray({ message }),
        ArrayMinSize(3, { message }),
        ArrayMaxSize(3, { message }),
        IsNumber({ allowInfinity: false, allowNaN: false }, each),
        Min(field.min, each),
        Max(field.max, each)
      ];
    }
    case 'nullable':
    case 'list':
    case 'object':
    case 'union':
      throw new Error(`decoratorsOf: a ${field.type} is checked by itself`);
    default:
      return assertNever(field, 'field');
  }
}
