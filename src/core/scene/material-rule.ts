/** Which materials a rule speaks of: by name, and where it says so by part. */
import type { SceneMaterial } from './scene';

/** Whether a rule speaks of a material of that name; a * stands for any letters. */
export function isMeant(rule: string, name: string): boolean {
  const pattern = rule
    .split('*')
    .map((text) => text.replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&'))
    .join('.*');
  return new RegExp(`^${pattern}$`, 'i').test(name);
}

export interface MaterialRule {
  material: string;
  /** Path of the part that alone is meant; null: wherever the material is. */
  part: string | null;
}

/** The first rule that speaks of a material decides. */
export const ruleFor = <R extends MaterialRule>(
  rules: readonly R[],
  { name, part }: Pick<SceneMaterial, 'name' | 'part'>
): R | null => rules.find((r) => isMeant(r.material, name) && (r.part === null || r.part === part)) ?? null;
