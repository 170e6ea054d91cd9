/**
 * Which lights belong together, by their names: each group has a layer of the film, so that it can be dimmed
 * afterwards.
 */
import { lampGroup } from './lamp-groups';
import type { Scene } from './scene';

/** Groups that a film has room for; what is beyond them shares the last. */
export const MAX_GROUPS = 16;

/** The layer of what is not a lamp, and the sun's. */
export const SURROUNDINGS_LAYER = 'surroundings';
export const SUN_LAYER = 'sun';

export interface LightGroups {
  /** Names fit for layers: no dots, none twice. */
  names: string[];
  /** Group of what each material gives off. */
  ofMaterial: number[];
  /** Group of each light without a surface. */
  ofLight: number[];
}

export function groupLights(scene: Pick<Scene, 'materials' | 'lights'>): LightGroups {
  const names = [SURROUNDINGS_LAYER, SUN_LAYER];
  const known = new Map<string, number>();
  const groupOf = (name: string): number => {
    const plain = lampGroup(name);
    const there = known.get(plain);
    if (there !== undefined) return there;
    if (names.length === MAX_GROUPS) {
      names[MAX_GROUPS - 1] = 'other lamps';
      return MAX_GROUPS - 1;
    }
    known.set(plain, names.length);
    names.push(names.includes(plain) ? `${plain} lamp` : plain);
    return names.length - 1;
  };
  return {
    ofMaterial: scene.materials.map((m) => (m.emissive.some((c) => c > 0) ? groupOf(m.lamp ?? m.name) : 0)),
    ofLight: scene.lights.map((l) => groupOf(l.name)),
    names
  };
}
