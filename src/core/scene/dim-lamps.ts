/**
 * The lamps of a model as a brief has them: grouped anew, others added, groups off, dimmed, recoloured, of another
 * distribution, or one alone.
 */
import { assertNever } from '../result/assert-never';
import { kelvinToRec709 } from '../color/kelvin';
import { luminance } from '../color/spaces';
import type { PhotometricWeb } from '../lights/web/web';
import { scale, type Vec3 } from '../math/vec3';
import { type AddedLamp, frameOf, lightOf, type Webs, webOf } from './added-lamps';
import { lampGroup, sameGroup } from './lamp-groups';
import type { Scene, SceneLight } from './scene';

/** What differs from the model for a group of its lamps. */
export interface LampSetting {
  group: string;
  on: boolean;
  /** Against what the model says. */
  dim_ev: number;
  /** Null: the model's own colour. */
  kelvin: number | null;
  /**
   * Content hash of a photometric file that says how its points and spots shine, in candela; null: as the model has it.
   */
  photometry: string | null;
}

/** A lamp or a glowing part, by its name, that belongs to a group of one's own. */
export interface Regrouped {
  lamp: string;
  group: string;
}

export interface LampChoice {
  /** Groups that are not listed are as the model has them. */
  groups: readonly LampSetting[];
  /** The one group that is seen alone, or `surroundings`; null for all. */
  only: string | null;
  added: readonly AddedLamp[];
  regrouped: readonly Regrouped[];
}

/** In `only`, what is not the model's. */
export const ONLY_SURROUNDINGS = 'surroundings';

/**
 * The setting of a group, in whatever letters the model writes it. `hidden`: it is on a hidden layer, and off where
 * nothing is said.
 */
export const settingOf = (choice: Pick<LampChoice, 'groups'>, group: string, hidden = false): LampSetting =>
  choice.groups.find((g) => sameGroup(g.group, group)) ?? {
    group,
    on: !hidden,
    dim_ev: 0,
    kelvin: null,
    photometry: null
  };

function colourAs(choice: LampChoice, group: string, colour: Vec3, hidden = false): Vec3 {
  if (choice.only !== null && !sameGroup(choice.only, group)) return [0, 0, 0];
  const { on, dim_ev, kelvin } = settingOf(choice, group, hidden);
  if (!on) return [0, 0, 0];
  return scale(kelvin === null ? colour : scale(kelvinToRec709(kelvin), luminance(colour)), 2 ** dim_ev);
}

const NO_WEBS: Webs = new Map();

/** `webs`: the photometric files that the choice names; throws a RangeError when one is missing. */
export function dimLamps<T extends Pick<Scene, 'materials' | 'lights'>>(
  scene: T,
  choice: LampChoice,
  webs: Webs = NO_WEBS
): T {
  const { groups, only, added, regrouped } = choice;
  if (
    groups.length === 0 &&
    only === null &&
    added.length === 0 &&
    regrouped.length === 0 &&
    !scene.lights.some((l) => l.hidden)
  )
    return scene;
  const own = new Map(regrouped.map((r) => [r.lamp.toLowerCase(), r.group]));
  const nameOf = (name: string) => own.get(name.toLowerCase()) ?? name;
  const lights = [
    ...scene.lights.map((l) => ({ ...l, name: nameOf(l.name) })),
    ...added.map((lamp) => lightOf(lamp, webs))
  ];
  return {
    ...scene,
    materials: scene.materials.map((m) => {
      if (luminance(m.emissive) === 0) return m;
      const lamp = nameOf(m.lamp ?? m.name);
      return { ...m, lamp, emissive: colourAs(choice, lampGroup(lamp), m.emissive) };
    }),
    lights: lights.map((l) => {
      const group = lampGroup(l.name);
      const { photometry } = settingOf(choice, group);
      return dimLight(photometry === null ? l : shapedBy(l, webOf(photometry, webs)), (colour) =>
        colourAs(choice, group, colour, l.hidden)
      );
    })
  };
}

/**
 * A point or spot that shines as a photometric file says, in its own colour; other lights have a shape of their own.
 */
function shapedBy(light: SceneLight, web: PhotometricWeb): SceneLight {
  if (light.kind !== 'point' && light.kind !== 'spot') return light;
  const direction: Vec3 = light.kind === 'spot' ? light.direction : [0, -1, 0];
  const bright = luminance(light.intensity);
  return {
    kind: 'web',
    name: light.name,
    position: light.position,
    direction,
    plane: frameOf(direction, 0).right,
    tint: bright > 0 ? scale(light.intensity, 1 / bright) : [1, 1, 1],
    web
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
    case 'rectangle':
    case 'disc':
    case 'sphere':
      return { ...light, radiance: as(light.radiance) };
    default:
      return assertNever(light, 'kind of light');
  }
}
