/** Where the parts that a brief names are in the next revision of a model. */
import type { Brief } from '../brief/brief';
import { isWithin, nameOfPath, WHOLE } from './part-paths';

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

/** A brief whose poses and materials of single parts are of the parts where they are now. */
export function followParts(brief: Brief, follow: (part: string) => string): Brief {
  return {
    ...brief,
    pose: brief.pose.map((posed) => ({ ...posed, part: follow(posed.part) })),
    materials: brief.materials.map((rule) => (rule.part === null ? rule : { ...rule, part: follow(rule.part) }))
  };
}

/** The name of a part in masks of a film, which know names alone: where just one part had it, that one's new name. */
export function followName(name: string, paths: readonly { from: string; to: string }[]): string {
  const meant = new Set(paths.filter(({ from }) => nameOfPath(from) === name).map(({ to }) => nameOfPath(to)));
  return meant.size === 1 ? [...meant][0]! : name;
}

/** The rules whose part the model does not have. */
export const rulesWithoutPart = <R extends { part: string | null }>(
  rules: readonly R[],
  there: ReadonlySet<string>
): R[] => rules.filter(({ part }) => part !== null && part !== WHOLE && !there.has(part));
