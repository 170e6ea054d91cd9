/**
 * One way from unknown input to a checked class: unknown fields are refused by name, each failure says field, range and
 * value.
 */
import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { type ValidationError, validateSync } from 'class-validator';
import type { Refused, Result } from '../core/result/result';

export type Class<T> = new () => T;

export const refuse = (message: string, code = 'bad_input'): Refused => ({ ok: false, code, message });

export function check<T extends object>(type: Class<T>, input: unknown, place: string): Result<T> {
  if (input === null || typeof input !== 'object' || Array.isArray(input))
    return refuse(`${place} must be an object, got ${quoted(input)}`);
  const instance = plainToInstance(type, input, { exposeDefaultValues: true });
  const errors = validateSync(instance, {
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
    stopAtFirstError: true
  });
  // a wrong kind makes all that goes with the right one unknown: it is said first
  if (errors.length > 0) return refuse(messageOf(errors.find((e) => e.property === 'kind') ?? errors[0]!, place));
  return { ok: true, value: instance };
}

function messageOf(error: ValidationError, place: string): string {
  const field = `${place}.${error.property}`;
  if (error.children?.length) return messageOf(error.children[0]!, field);
  const constraints = error.constraints ?? {};
  if ('whitelistValidation' in constraints) return `${field} is not a known field; remove it or check its spelling`;
  const reason = Object.values(constraints)[0] ?? 'is not valid';
  const text = reason.startsWith(error.property) ? reason.slice(error.property.length).trim() : reason;
  return `${field} ${text}, got ${quoted(error.value)}`;
}

export function quoted(value: unknown): string {
  if (value === undefined) return 'nothing';
  const text = JSON.stringify(value) ?? String(value);
  return text.length > 60 ? `${text.slice(0, 57)}...` : text;
}
