/**
 * What changed between two revisions of a model: objects are matched by their path, then by their name, then by their shape,
 * each at most once.
 */
export interface ModelObject {
  /** As partPaths makes them. */
  path: string;
  name: string;
  /** The same for equal shapes and materials. */
  shape: string;
  /** The same for equal places. */
  place: string;
}

export interface Matched {
  same: number;
  moved: string[];
  /** The shape or the material is another. */
  changed: string[];
  renamed: { from: string; to: string }[];
  /** Each matched object whose path is another, however it was matched. */
  paths: { from: string; to: string }[];
  added: string[];
  removed: string[];
}

export function matchObjects(before: readonly ModelObject[], after: readonly ModelObject[]): Matched {
  const out: Matched = { same: 0, moved: [], changed: [], renamed: [], paths: [], added: [], removed: [] };
  const left = new Set(before);
  const open = new Set(after);
  /** Pairs those that agree in `key`, in their order. */
  const pair = (key: (object: ModelObject) => string, found: (was: ModelObject, is: ModelObject) => void) => {
    const byKey = new Map<string, ModelObject[]>();
    for (const was of left) byKey.set(key(was), [...(byKey.get(key(was)) ?? []), was]);
    for (const is of [...open]) {
      const was = byKey.get(key(is))?.shift();
      if (!was) continue;
      left.delete(was);
      open.delete(is);
      if (was.path !== is.path) out.paths.push({ from: was.path, to: is.path });
      found(was, is);
    }
  };
  const told = (was: ModelObject, is: ModelObject) => {
    if (was.shape !== is.shape) out.changed.push(is.path);
    else if (was.place !== is.place) out.moved.push(is.path);
    else out.same++;
  };
  pair((o) => `${o.path}\n${o.shape}\n${o.place}`, told);
  // numbers in a path are those of their order, which another object of the name changes
  pair((o) => `${unnumbered(o.path)}\n${o.shape}\n${o.place}`, told);
  pair((o) => `${o.path}\n${o.shape}`, told);
  pair((o) => o.path, told);
  pair((o) => `${o.name}\n${o.shape}`, told);
  pair((o) => o.name, told);
  const renamed = (was: ModelObject, is: ModelObject) => out.renamed.push({ from: was.path, to: is.path });
  pair((o) => `${o.shape}\n${o.place}`, renamed);
  pair((o) => o.shape, renamed);
  out.added = [...open].map((o) => o.path);
  out.removed = [...left].map((o) => o.path);
  return out;
}

const unnumbered = (path: string) => path.replace(/ \(\d+\)(?= \/ |$)/g, '');
