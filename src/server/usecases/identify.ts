import { randomUUID } from 'node:crypto';

/** A new id for a row. */
export const newId = (): string => randomUUID().replaceAll('-', '').slice(0, 20);

/** An expected refusal of a use case: what is wrong and what to do. */
export type Outcome<T> = { ok: true; value: T } | { ok: false; code: string; message: string };
export const refused = <T>(message: string, code = 'refused'): Outcome<T> => ({ ok: false, code, message });
export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });
