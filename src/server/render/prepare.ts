/**
 * From model and brief to everything a render needs: the scene with its studio, the pack, the surroundings' light, the
 * camera, the exposure. Refusals say which word of the brief cannot be met.
 */
import { whiteLuminance } from '../../core/brief/exposure';
import { type Brief, type BriefQuality, canonicalJson, setAsideOf, type SetAside } from '../../core/brief/brief';
import { type CameraFrame, createCameraFrame } from '../../core/camera/lens';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { cutSun, findSun } from '../../core/lights/captured/find-sun';
import { level } from '../../core/lights/captured/level';
import { coarsest } from '../../core/lights/captured/levels';
import { reduceImage } from '../../core/lights/captured/reduce';
import { trueSun, turnedWithImage } from '../../core/lights/captured/true-sun';
import { buildImportanceGrid } from '../../core/lights/captured/importance';
import { levelIrradiance } from '../../core/lights/ground/irradiance';
import { makeRoom } from '../../core/lights/room/room';
import { makeSky } from '../../core/lights/sky/sky-image';
import { skyLights } from '../../core/lights/sky/sky-lights';
import { buildStudio } from '../../core/lights/studio/studio';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';
import { length, scale, subtract, type Vec3 } from '../../core/math/vec3';
import { addSet, type LitScene } from '../../core/scene/lit-scene';
import { centreFor, recentreScene } from '../../core/scene/recentre';
import type { OpenFrame } from '../../core/scene/opening';
import { setAside, slimDown } from '../../core/scene/set-aside';
import type { Webs } from '../../core/scene/added-lamps';
import { inClay } from '../../core/scene/clay';
import { inPlain } from '../../core/scene/plain-materials';
import { dimLamps, ONLY_SURROUNDINGS } from '../../core/scene/dim-lamps';
import { warmthGain } from '../../core/color/kelvin';
import { luminance } from '../../core/color/spaces';
import { MATERIAL_DEFAULTS, type Scene, type SceneLight } from '../../core/scene/scene';
import { type GroundSettings, type PathLimits, type RenderSettings } from '../../kernel/host/settings';
import { Refusal } from '../../core/result/result';
import { radians } from '../../core/units/units';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { openReducer } from '../../formats/reduce-mesh';
import { BriefRefused } from './refused';

/** The viewpoint as numbers: a named camera of the model is looked up. */
export function resolveViewpoint(scene: Pick<Scene, 'cameras'>, brief: Brief): FreeViewpoint {
  const view = brief.viewpoint;
  if (!('camera' in view)) return view;
  const camera = scene.cameras.find((c) => c.name === view.camera);
  if (!camera) {
    const names = scene.cameras.map((c) => `"${c.name}"`).join(', ');
    throw new BriefRefused(
      'viewpoint.camera',
      `viewpoint.camera "${view.camera}" is not in the model; ` +
        `${names ? `it has ${names}` : 'it has no camera, so state position_m and target_m'}`
    );
  }
  return { ...camera, sensor_height_mm: 24, f_number: null, focus_m: null };
}

export function resolveCamera(view: FreeViewpoint, width: number, height: number): CameraFrame {
  const camera = createCameraFrame(view, width / height);
  if (!camera)
    throw new BriefRefused(
      'viewpoint',
      'viewpoint.position_m and viewpoint.target_m are the same point; move one of them'
    );
  return camera;
}

/** All that decides a scene pack beside the model: where its origin lies, and what is left out or slim. */
export interface PackInput extends Omit<SetAside, 'plain'> {
  centre_m: Vec3;
}

export function packInput(view: FreeViewpoint, brief: Brief): PackInput {
  // materials are no part of a pack
  const { plain: _plain, ...objects } = setAsideOf(brief);
  return { centre_m: centreFor(view.position_m), ...objects };
}

/** The model as it goes into a pack. */
export async function packedModel(scene: Scene, { centre_m, aside = [], slim = [] }: PackInput): Promise<Scene> {
  const left = setAside(scene, aside);
  return recentreScene(slim.length > 0 ? slimDown(left, slim, await openReducer()) : left, centre_m);
}

/**
 * A model with all that a brief sets round it, for the rig; `webs` are the photometric files of its lamps. A studio
 * adds its lamps and its paper, which a ground takes the place of. `eye` in the plain model's coordinates, whose origin
 * is `centre`.
 */
export function lightModel(own: Scene, brief: Brief, eye: Vec3, centre: Vec3, webs: Webs): LitScene {
  const lamps = {
    ...brief.lamps,
    added: brief.lamps.added.map((l) => ({
      ...l,
      position_m: [...subtract(l.position_m, centre)] as [number, number, number]
    }))
  };
  const plain = inPlain(own, setAsideOf(brief).plain ?? []);
  const dimmed = dimLamps(brief.look.kind === 'clay' ? inClay(plain, brief.look) : plain, lamps, webs);
  const model = { ...dimmed, openings: openingsOf(plain, brief, centre) };
  if (brief.surroundings.kind !== 'studio') return addSet(model, []);
  const { min, max } = model.bounds;
  const distance = Math.hypot(eye[0] - (min[0] + max[0]) / 2, eye[1] - min[1], eye[2] - (min[2] + max[2]) / 2);
  // rounded up in steps, so that small moves of the camera keep the studio as it is
  const cameraDistance = 2 ** (Math.ceil(Math.log2(Math.max(distance, 1e-3)) * 2) / 2);
  const { papers, paper, lights } = buildStudio(brief.surroundings, model.bounds, cameraDistance);
  const material = {
    ...MATERIAL_DEFAULTS,
    name: 'studio paper',
    baseColor: [...paper, 1] as [number, number, number, number],
    roughness: 0.9,
    ior: 1.3,
    twoSided: true
  };
  return addSet(
    model,
    brief.ground.kind === 'none' ? papers.map((p) => ({ ...p, material })) : [],
    seesSurroundings(brief) ? lights : []
  );
}

/** Of the model and of the brief, in the plain model's coordinates. */
export const openingsOf = (plain: Pick<Scene, 'openings'>, brief: Brief, centre: Vec3): OpenFrame[] => [
  ...(plain.openings ?? []),
  ...brief.openings.map((o) => ({ ...o, middle_m: subtract(o.middle_m, centre) }))
];

// The sky is smooth but for the sun, which is sampled by itself: a small grid stays in the processor's cache.
const SKY_GRID = 128;

/** `captured` is the image of captured surroundings. */
export const makeLight = (brief: Brief, scene: Pick<Scene, 'bounds'>, captured: FloatImage | null): SurroundingsLight =>
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
  captured: FloatImage | null,
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
const seesSurroundings = ({ lamps }: Brief) => lamps.only === null || lamps.only === ONLY_SURROUNDINGS;

/** The ground of a brief under a model that lies in pack coordinates, whose origin is `centre`. */
export function groundFor(
  { ground }: Brief,
  model: Pick<Scene, 'bounds'>,
  light: SurroundingsLight,
  centre: Vec3
): GroundSettings | null {
  if (ground.kind === 'none') return null;
  const { min, max } = model.bounds;
  const across = Math.hypot(max[0] - min[0], max[2] - min[2]);
  const end = ground.reach * Math.max(across, max[1] - min[1], 1e-3);
  return {
    height_m: ground.height_m === null ? min[1] : ground.height_m - centre[1],
    middle_m: [(min[0] + max[0]) / 2, (min[2] + max[2]) / 2],
    fade_m: [FULL_GROUND * end, end],
    polish: ground.polish,
    roughness: ground.roughness,
    irradiance: levelIrradiance(light)
  };
}

// Of its reach, how far a ground is there in full.
const FULL_GROUND = 0.4;

export function proofPpi({ size, quality }: Pick<Brief, 'size' | 'quality'>): number | null {
  return 'ppi' in size ? size.ppi * quality.scale : null;
}

export const fireflyLimit = (brief: Brief, ev100: number): number =>
  brief.quality.firefly === null ? 0 : brief.quality.firefly * whiteLuminance(ev100);

// A meter makes grey of a studio's paper; opened by this it looks like paper (common practice, no source).
const PAPER_EV = 0.9;

/** The exposure that a brief's meter reading means. */
export const exposureFor = (brief: Brief, metered: number): number =>
  metered - (brief.surroundings.kind === 'studio' ? PAPER_EV : 0);

// Of the model's diagonal; what lies farther off does not make a place less open.
const OPENNESS_REACH = 0.1;

/**
 * The settings of a brief in a frame of `width` x `height` px, but for what hangs on the pack and on the exposure;
 * `camera` in the pack's coordinates.
 */
export function settingsFor(
  brief: Brief,
  scene: Pick<Scene, 'bounds'>,
  {
    width,
    height,
    camera,
    light,
    layers,
    ground
  }: Pick<RenderSettings, 'width' | 'height' | 'camera' | 'light' | 'layers' | 'ground'>
): RenderSettings {
  return {
    width,
    height,
    camera,
    light,
    layers,
    ground,
    bounces: brief.quality.bounces,
    limits: pathLimits(brief.quality),
    aovs: brief.quality.aovs
      ? { openness_m: OPENNESS_REACH * length(subtract(scene.bounds.max, scene.bounds.min)) }
      : null,
    firefly: 0,
    seed: 1,
    unmirrored: brief.surroundings.kind === 'captured' && !brief.surroundings.in_reflections,
    indoors: false
  };
}

const pathLimits = (quality: BriefQuality): PathLimits => {
  const { diffuse_bounces, specular_bounces, transmission_bounces, transparent_bounces, filter_px, emissive_lights } =
    quality;
  return { diffuse_bounces, specular_bounces, transmission_bounces, transparent_bounces, filter_px, emissive_lights };
};
