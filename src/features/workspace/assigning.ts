/** Changes of what materials of the file become. */
import type { Brief } from '../../core/brief/brief';
import { isMeant } from '../../core/scene/assign-materials';
import { suggestMaterial } from '../../core/scene/suggest-material';

/** The rule that decides over a material of the file; null where it is as in the file. */
export const ruleOf = (rules: Brief['materials'], name: string): Brief['materials'][number] | null =>
  rules.find(({ material }) => isMeant(material, name)) ?? null;

/** Its own rule comes before those by pattern; `null` takes all its rules away. */
export function withMaterial(rules: Brief['materials'], name: string, becomes: string | null): Brief['materials'] {
  const others = rules.filter(({ material }) => material.toLowerCase() !== name.toLowerCase());
  return becomes === null
    ? others.filter(({ material }) => !isMeant(material, name))
    : [{ material: name, becomes }, ...others];
}

export interface Suggestion {
  material: string;
  becomes: string;
  /** Of the library's. */
  name: string;
}

/** For those that no rule speaks of and that do not glow. */
export const suggestionsFor = (
  names: readonly string[],
  glowing: readonly string[],
  rules: Brief['materials']
): Suggestion[] =>
  names.flatMap((material) => {
    const found = glowing.includes(material) || ruleOf(rules, material) ? null : suggestMaterial(material);
    return found ? [{ material, becomes: found.key, name: found.name }] : [];
  });
