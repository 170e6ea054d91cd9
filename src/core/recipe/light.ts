/** The light that surroundings give: its costly part by itself, and what a brief makes of it. */
import { type Brief, canonicalJson } from '../brief/brief';
import { BriefRefused } from '../brief/refused';
import { warmthGain } from '../color/kelvin';
import { luminance } from '../color/spaces';
import { cutSun, findSun } from '../lights/captured/find-sun';
import { buildImportanceGrid } from '../lights/captured/importance';
import { level } from '../lights/captured/level';
import { coarsest } from '../lights/captured/levels';
import { type ImageLike, reduceImage } from '../lights/captured/reduce';
import { trueSun, turnedWithImage } from '../lights/captured/true-sun';
import { makeRoom } from '../lights/room/room';
import { makeSky } from '../lights/sky/sky-image';
import { skyLights } from '../lights/sky/sky-lights';
import { buildStudio } from '../lights/studio/studio';
import type { SurroundingsLight } from '../lights/surroundings-light';
import { scale } from '../math/vec3';
import { Refusal } from '../result/result';
import { ONLY_SURROUNDINGS } from '../scene/dim-lamps';
import type { Scene, SceneLight } from '../scene/scene';
import { radians } from '../units/units';

// The sky is smooth but for the sun, which is sampled by itself: a small grid stays in the processor's cache.
const SKY_GRID = 128;

/** `captured` is the image of captured surroundings. */
export const makeLight = (brief: Brief, scene: Pick<Scene, 'bounds'>, captured: ImageLike | null): SurroundingsLight =>
  adjustLight(makeNeutralLight(brief, scene, captured), brief);

/**
 * Whether the light of a brief is one that a first look does not wait for: clear air takes a few tenths of a second,
 * clouds some seconds.
 */
export const takesLong = ({ surroundings }: Brief): boolean => surroundings.kind === 'sky';

/**
 * The costly part of a light: an image before it is turned and brightened. Equal for briefs of equal neutralKey;
 * `coarse`: quick, to see by.
 */
export function makeNeutralLight(
  brief: Brief,
  scene: Pick<Scene, 'bounds'>,
  captured: ImageLike | null,
  coarse = false
): SurroundingsLight {
  const around = brief.surroundings;
  if (!seesSurroundings(brief)) return { even: null, image: null, sun: null };
  if (around.kind === 'uniform') return { even: scale(around.color, around.radiance), image: null, sun: null };
  if (around.kind === 'studio') return { even: buildStudio(around, scene.bounds, 1).ceiling, image: null, sun: null };
  if (around.kind === 'sky') {
    const { sun, moon, axes } = skyLights(around);
    const { visibility_km, cloud, cumulus, sun_ev, sky_ev, moon_ev } = around;
    // in the image sun and moon count against the sky; the whole is brightened later
    const gain = (warmth: number, ev: number) => scale(warmthGain(warmth), 2 ** (ev - sky_ev));
    const { pixels, width, height, disc, stars } = makeSky({
      direction: sun.direction,
      elevation: sun.elevation,
      mirror_deg: around.mirror_deg,
      visibility_km,
      cloud,
      cumulus,
      moon,
      sunGain: gain(around.sun_warmth, sun_ev),
      skyGain: gain(around.sky_warmth, sky_ev),
      moonGain: gain(around.moon_warmth, moon_ev),
      coarse
    });
    const grid = buildImportanceGrid(pixels, width, height, SKY_GRID);
    return {
      even: null,
      image: { pixels, width, height, scale: 1, rotation: 0, grid },
      sun: disc,
      stars: stars.share > 0 ? { gain: stars.share, axes, clear: stars.clear } : null
    };
  }
  if (around.kind === 'room') {
    const room = makeRoom(around.room);
    return {
      even: null,
      image: { ...room, scale: 1, rotation: 0, grid: buildImportanceGrid(room.pixels, room.width, room.height) },
      sun: null
    };
  }
  if (!captured) throw new BriefRefused('surroundings.file', `surroundings.file "${around.file}" was not found`);
  const upright = level(reduceImage(captured, around.most_px ?? captured.width), around);
  const found = around.sun === 'image' ? null : findSun(upright);
  const seen = found ? cutSun(upright, found) : upright;
  const sampled = coarsest(seen);
  return {
    even: null,
    image: { ...seen, scale: 1, rotation: 0, grid: buildImportanceGrid(sampled.pixels, sampled.width, sampled.height) },
    sun: found && around.sun === 'true' ? trueSun(found) : null
  };
}

export function adjustLight({ even, image, sun, stars = null }: SurroundingsLight, brief: Brief): SurroundingsLight {
  const around = brief.surroundings;
  if (!image || !('brightness_ev' in around)) return { even, image, sun, stars };
  const skyEv = around.kind === 'sky' ? around.sky_ev : 0;
  const { pixels, width, height, grid } = image;
  return {
    even,
    image: {
      pixels,
      width,
      height,
      grid,
      scale: 2 ** (around.brightness_ev + skyEv),
      rotation: 'rotation_deg' in around ? radians(around.rotation_deg) : 0
    },
    stars: stars && { ...stars, gain: stars.gain * 2 ** (around.brightness_ev + skyEv) },
    sun: sun && {
      ...sun,
      direction:
        around.kind === 'captured'
          ? turnedWithImage(sun.direction, radians(around.rotation_deg + around.sun_turn_deg))
          : sun.direction,
      radiance: scale(sun.radiance, 2 ** (around.brightness_ev + skyEv))
    }
  };
}

export function neutralKey(brief: Brief): string {
  const around = brief.surroundings;
  if (!seesSurroundings(brief)) return 'none';
  if (around.kind === 'uniform' || around.kind === 'studio') return canonicalJson(around);
  const apart =
    around.kind === 'sky'
      ? { sun_ev: around.sun_ev - around.sky_ev, moon_ev: around.moon_ev - around.sky_ev, sky_ev: 0 }
      : {};
  return canonicalJson({
    ...around,
    ...apart,
    brightness_ev: 0,
    rotation_deg: 0,
    sun_turn_deg: 0,
    in_reflections: true
  });
}

/** Whether no light at all can reach the picture: it is said rather than rendered. */
export function isDark({ even, image, sun }: SurroundingsLight, lit: Pick<Scene, 'lights' | 'materials'>): boolean {
  if (sun || even?.some((c) => c > 0) || image?.pixels.some((v) => v > 0)) return false;
  const shines = (l: SceneLight) =>
    luminance('intensity' in l ? l.intensity : 'illuminance' in l ? l.illuminance : 'tint' in l ? l.tint : l.radiance) >
    0;
  return !lit.lights.some(shines) && lit.materials.every((m) => luminance(m.emissive) === 0);
}

export const DARK =
  'No light reaches this picture: the surroundings are dark and no lamp is on. Switch a lamp on, or set or brighten the surroundings';

/** Refuses to render what no light reaches. */
export function refuseDark({ dark }: { dark: boolean }): void {
  if (dark) throw new Refusal('dark', DARK);
}

/** Whether the light from around is seen, or one group of lamps alone. */
export const seesSurroundings = ({ lamps }: Brief) => lamps.only === null || lamps.only === ONLY_SURROUNDINGS;
