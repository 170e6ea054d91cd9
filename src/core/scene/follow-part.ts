/** Where a posed part is in the next revision of a model. */
import { isWithin, WHOLE } from './part-paths';

/**
 * `paths`: objects whose path became another. `there`: all paths of the next revision. A part that is not there any more
 * keeps its path, so that going back finds it again.
 */
export function followPart(
  part: string,
  paths: readonly { from: string; to: string }[],
  there: ReadonlySet<string>
): string {
  const own = paths.find(({ from }) => from === part);
  if (own) return own.to;
  if (part === WHOLE || there.has(part)) return part;
  // a group goes where what lay within it went
  for (const { from, to } of paths) {
    const rest = from.slice(part.length);
    if (!isWithin(from, part) || !to.endsWith(rest)) continue;
    const group = to.slice(0, to.length - rest.length);
    if (there.has(group)) return group;
  }
  return part;
}
