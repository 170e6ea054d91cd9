/** The lamps of a model as a brief has them: groups off, dimmed, recoloured, or one alone. */
import { kelvinToRec709 } from '../color/kelvin';
import { luminance } from '../color/spaces';
import { scale, type Vec3 } from '../math/vec3';
import { lampGroup } from './lamp-groups';
import type { Scene, SceneLight } from './scene';

/** What differs from the model for a group of its lamps. */
export interface LampSetting {
  group: string;
  on: boolean;
  /** Against what the model says. */
  dim_ev: number;
  /** Null: the model's own colour. */
  kelvin: number | null;
}

export interface LampChoice {
  /** Groups that are not listed are as the model has them. */
  groups: readonly LampSetting[];
  /** The one group that is seen alone, or `surroundings`; null for all. */
  only: string | null;
}

/** In `only`, what is not the model's. */
export const ONLY_SURROUNDINGS = 'surroundings';

const sameGroup = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** The setting of a group, in whatever letters the model writes it. */
export const settingOf = (choice: LampChoice, group: string): LampSetting => choice.groups.find((g) => sameGroup(g.group, group)) ?? { group, on: true, dim_ev: 0, kelvin: null };

function colourAs(choice: LampChoice, group: string, colour: Vec3): Vec3 {
  if (choice.only !== null && !sameGroup(choice.only, group)) return [0, 0, 0];
  const { on, dim_ev, kelvin } = settingOf(choice, group);
  if (!on) return [0, 0, 0];
  return scale(kelvin === null ? colour : scale(kelvinToRec709(kelvin), luminance(colour)), 2 ** dim_ev);
}

export function dimLamps<T extends Pick<Scene, 'materials' | 'lights'>>(scene: T, choice: LampChoice): T {
  if (choice.groups.length === 0 && choice.only === null) return scene;
  return {
    ...scene,
    materials: scene.materials.map((m) => (luminance(m.emissive) > 0 ? { ...m, emissive: colourAs(choice, m.lampGroup ?? lampGroup(m.name), m.emissive) } : m)),
    lights: scene.lights.map((l) => dimLight(l, (colour) => colourAs(choice, lampGroup(l.name), colour)))
  };
}

function dimLight(light: SceneLight, as: (colour: Vec3) => Vec3): SceneLight {
  switch (light.kind) {
    case 'point':
    case 'spot':
      return { ...light, intensity: as(light.intensity) };
    case 'directional':
      return { ...light, illuminance: as(light.illuminance) };
    case 'web':
      return { ...light, tint: as(light.tint) };
    default:
      return { ...light, radiance: as(light.radiance) };
  }
}
