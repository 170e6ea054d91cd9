/** Changes of what materials of the file become. */
import type { Brief } from '../../core/brief/brief';
import { isMeant, ruleFor } from '../../core/scene/material-rule';
import { suggestMaterial } from '../../core/scene/suggest-material';

export type Rule = Brief['materials'][number];

/** A material of the file; of one part alone, or wherever it is. */
export interface MaterialInHand {
  material: string;
  /** Path of the part; null: everywhere. */
  part: string | null;
}

export const PLAIN_RULE: Omit<Rule, 'material'> = { part: null, becomes: null, change: null, texture: null };

/** The rule that decides over a material of the file; null where it is as in the file. */
export const ruleOf = (rules: readonly Rule[], { material, part }: MaterialInHand): Rule | null =>
  ruleFor(rules, { name: material, ...(part === null ? {} : { part }) });

/** A material wherever it is. */
export const everywhere = (material: string): MaterialInHand => ({ material, part: null });

const isSame = (rule: Rule, { material, part }: MaterialInHand): boolean =>
  rule.material.toLowerCase() === material.toLowerCase() && rule.part === part;

const isNothing = ({ becomes, change, texture }: Pick<Rule, 'becomes' | 'change' | 'texture'>): boolean =>
  becomes === null && change === null && texture === null;

/**
 * Its own rule comes before those by pattern, that of a part before those that hold everywhere; `null` takes all its rules
 * away.
 */
export function withMaterial(
  rules: readonly Rule[],
  inHand: MaterialInHand,
  set: Partial<Pick<Rule, 'becomes' | 'change' | 'texture'>> | null
): Rule[] {
  const others = rules.filter((rule) => !isSame(rule, inHand));
  if (set === null)
    return others.filter(({ material, part }) => !(isMeant(material, inHand.material) && part === inHand.part));
  const before = ruleOf(rules, inHand) ?? { ...PLAIN_RULE, material: inHand.material };
  const next: Rule = { ...before, ...set, material: inHand.material, part: inHand.part };
  const without = withMaterial(rules, inHand, null);
  if (isNothing(next) && ruleOf(without, inHand) === null) return without;
  const parts = others.filter((r) => r.part !== null);
  const general = others.filter((r) => r.part === null);
  return inHand.part === null ? [...parts, next, ...general] : [next, ...parts, ...general];
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
  rules: readonly Rule[]
): Suggestion[] =>
  names.flatMap((material) => {
    const found = glowing.includes(material) || ruleOf(rules, everywhere(material)) ? null : suggestMaterial(material);
    return found ? [{ material, becomes: found.key, name: found.name }] : [];
  });

/**
 * Address of a picture of what a rule makes of a material of a file; null where neither a material of the library nor one
 * of a file is meant.
 */
export function swatchUrl(
  rule: Pick<Rule, 'becomes' | 'change' | 'texture'> | null,
  of: { model: string; name: string } | null = null
): string | null {
  const { becomes = null, change = null, texture = null } = rule ?? {};
  if (becomes === null && !of) return null;
  const asked = new URLSearchParams();
  if (becomes === null) asked.set('name', of!.name);
  if (change || texture) asked.set('more', JSON.stringify({ change, texture }));
  const address = becomes === null ? `/api/models/${of!.model}/swatch` : `/api/materials/${becomes}`;
  return asked.size > 0 ? `${address}?${asked}` : address;
}
