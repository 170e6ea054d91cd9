/** Ends a switch over a union: the compiler points here when a member is not handled. */
export function assertNever(value: never, what = 'value'): never {
  throw new Error(`unhandled ${what}: ${JSON.stringify(value)}`);
}
