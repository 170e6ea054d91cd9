/** What is asked for again while it is under way is made once: all who asked get the same result. */
import { singleton } from '../jobs/singleton';

export function underWay<T>(what: string, key: string, make: () => Promise<T>): Promise<T> {
  const all = singleton(`under way: ${what}`, () => new Map<string, Promise<T>>());
  const found = all.get(key);
  if (found) return found;
  const made = make().finally(() => all.delete(key));
  all.set(key, made);
  return made;
}
