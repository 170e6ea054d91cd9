/**
 * How an expected refusal travels: bad input, a full disk, a stopped job. `code` is stable and may be tested; `message`
 * says what is wrong and what to do, without a full stop. A fault of our own is thrown as an Error instead.
 */
export type Result<T> = { ok: true; value: T } | Refused;

export interface Refused {
  ok: false;
  code: string;
  message: string;
}

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const refused = (message: string, code = 'refused'): Refused => ({ ok: false, code, message });

/** The same refusal where it has to cross functions that return something else; toResult turns it back. */
export class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string
  ) {
    super(message);
  }
}

/** Runs `work`; a thrown Refusal becomes its result, every other error is thrown on. */
export async function toResult<T>(work: () => Promise<T>): Promise<Result<T>> {
  try {
    return ok(await work());
  } catch (error) {
    if (error instanceof Refusal) return refused(error.message, error.code);
    throw error;
  }
}
