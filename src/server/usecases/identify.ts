import { randomUUID } from 'node:crypto';

/** A new id for a row. */
export const newId = (): string => randomUUID().replaceAll('-', '').slice(0, 20);
