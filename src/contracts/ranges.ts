/** What contracts are written with: ranges that are said, one of several shapes, lists of one shape. */
import 'reflect-metadata';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsInt, IsNumber, Max, Min } from 'class-validator';
import { type Checked, check, quoted, refuse } from './validate';

export const FAR_M = 1e7;
export type Triple = [number, number, number];

/** A decorator for a number within a range, with a message that names the range. */
export function Range(min: number, max: number, unit = ''): PropertyDecorator {
  const message = `must be a number from ${min} to ${max}${unit && ` ${unit}`}`;
  return (target, key) => {
    IsNumber({ allowInfinity: false, allowNaN: false }, { message })(target, key as string);
    Min(min, { message })(target, key as string);
    Max(max, { message })(target, key as string);
  };
}

export function WholeRange(min: number, max: number): PropertyDecorator {
  const message = `must be a whole number from ${min} to ${max}`;
  return (target, key) => {
    IsInt({ message })(target, key as string);
    Min(min, { message })(target, key as string);
    Max(max, { message })(target, key as string);
  };
}

export function Vector(min: number, max: number): PropertyDecorator {
  const message = `must be three numbers from ${min} to ${max}`;
  return (target, key) => {
    IsArray({ message })(target, key as string);
    ArrayMinSize(3, { message })(target, key as string);
    ArrayMaxSize(3, { message })(target, key as string);
    IsNumber({ allowInfinity: false, allowNaN: false }, { each: true, message })(target, key as string);
    Min(min, { each: true, message })(target, key as string);
    Max(max, { each: true, message })(target, key as string);
  };
}

export function OneOf(values: readonly string[]): PropertyDecorator {
  return IsIn(values as string[], { message: `must be one of ${values.join(', ')}` });
}

export const notNull = (_: object, value: unknown) => value !== null;

/** A section of a brief whose shape is chosen by what it holds; `fallback` when it is left out. */
export function variant<T extends object>(
  input: unknown,
  place: string,
  fallback: T,
  choose: (value: object) => new () => object
): Checked<T> {
  if (input === undefined) return { ok: true, value: fallback };
  if (input === null || typeof input !== 'object' || Array.isArray(input))
    return refuse(`${place} must be an object, got ${quoted(input)}`);
  const result = check(choose(input) as new () => T, input, place);
  return result.ok ? { ok: true, value: { ...result.value } } : result;
}

/** A list whose items each meet a contract; the message names the item. */
export function parseList<T extends object>(
  input: unknown,
  place: string,
  contract: new () => T,
  most: number,
  what: string
): Checked<T[]> {
  if (!Array.isArray(input)) return refuse(`${place} must be a list of ${what}, got ${quoted(input)}`);
  if (input.length > most) return refuse(`${place} has ${input.length} items; it holds ${most}`);
  const out: T[] = [];
  for (const [i, item] of input.entries()) {
    if (item === null || typeof item !== 'object' || Array.isArray(item))
      return refuse(`${place}[${i}] must be an object, got ${quoted(item)}`);
    const result = check(contract, item as object, `${place}[${i}]`);
    if (!result.ok) return result;
    out.push({ ...result.value });
  }
  return { ok: true, value: out };
}
