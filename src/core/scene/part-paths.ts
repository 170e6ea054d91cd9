/**
 * Where each node of a model is in its tree, as one text that no other node has: what a brief names parts by. The same
 * for the renderer, which reads the file with one library, and the page, which reads it with another.
 */

export interface NodeOutline {
  /** Its own name, else that of its mesh; may be empty. */
  name: string;
  children: readonly number[];
}

/** Between the names of a path. */
export const PATH_JOINT = ' / ';
/** What the import puts round a model to bring it to metres; it is no part of a path. */
export const WRAP_NAME = 'model in metres';
/** The path of the whole model. */
export const WHOLE = '';

/**
 * Of each node that hangs from the roots, by its index. Names that stand twice are numbered: "Leg", "Leg (2)". A node without
 * a name that holds all the others is the whole model.
 */
export function partPaths(nodes: readonly NodeOutline[], roots: readonly number[]): Map<number, string> {
  const paths = new Map<number, string>();
  const taken = new Set<string>();
  type Waiting = [node: number, above: string, alone: boolean];
  const waiting = roots.map((node): Waiting => [node, WHOLE, roots.length === 1]).reverse();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const [index, above, alone] = next;
    const node = nodes[index];
    if (!node || paths.has(index)) continue;
    const isWhole =
      above === WHOLE && (node.name === WRAP_NAME || (alone && node.name === '' && node.children.length > 0));
    const own = isWhole ? WHOLE : unique(joined(above, node.name || 'part'), taken);
    paths.set(index, own);
    for (let i = node.children.length - 1; i >= 0; i--)
      waiting.push([node.children[i]!, own, node.children.length === 1]);
  }
  return paths;
}

const joined = (above: string, name: string) => (above === WHOLE ? name : above + PATH_JOINT + name);

function unique(path: string, taken: Set<string>): string {
  let own = path;
  for (let n = 2; taken.has(own); n++) own = `${path} (${n})`;
  taken.add(own);
  return own;
}

/** Whether a path is a part, or lies within it. */
export const isWithin = (path: string, part: string): boolean =>
  part === WHOLE || path === part || path.startsWith(part + PATH_JOINT);

/** The last name of a path. */
export function nameOfPath(path: string): string {
  const at = path.lastIndexOf(PATH_JOINT);
  return at < 0 ? path : path.slice(at + PATH_JOINT.length);
}
