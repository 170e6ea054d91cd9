/**
 * One value a process under a name. The web server may load a module several times, once for each bundle it is part of,
 * so what must exist once (a helper process, a mutex, work that is under way) is kept on the global object.
 */
const store = globalThis as typeof globalThis & { sphaeraSingletons?: Map<string, unknown> };

export function singleton<T>(name: string, make: () => T): T {
  store.sphaeraSingletons ??= new Map();
  if (!store.sphaeraSingletons.has(name)) store.sphaeraSingletons.set(name, make());
  return store.sphaeraSingletons.get(name) as T;
}
