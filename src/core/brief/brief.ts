/**
 * The brief: everything that decides a picture, as one versioned document. Public; described for users in
 * docs/brief.md. Lengths in metres, angles in degrees, light in cd/m2; each field carries its unit in its name.
 */
import type { QualityKey } from '../catalogue/quality';
import { FIRST_DECISION } from '../film/film';
import type { Corner } from '../catalogue/corners';
import type { FileKind } from '../catalogue/file-kinds';
import type { SizeChoice } from '../catalogue/size-choice';
import type { Viewpoint } from '../camera/viewpoint';
import type { WhiteBalance } from '../color/white-balance';
import type { SheetShare } from '../output/size';
import { isAmong } from '../scene/lamp-groups';
import type { AddedLamp } from '../scene/added-lamps';
import type { OpenFrame } from '../scene/opening';
import type { LampSetting, Regrouped } from '../scene/dim-lamps';
import type { Heaps } from '../lights/sky/heaps';
import type { SkyPlace } from '../lights/sky/sky-lights';
import type { RoomKey } from '../lights/room/room';
import type { StudioLamp } from '../lights/studio/lamp';
import type { Backdrop, StudioSetKey } from '../lights/studio/sets';
import type { StudioChoice } from '../lights/studio/studio';

export const BRIEF_VERSION = 1;

export interface EvenSurroundings {
  kind: 'even';
  /** cd/m2. */
  radiance: number;
  /** Linear Rec. 709 factors. */
  color: [number, number, number];
}
export interface SkySurroundings extends SkyPlace {
  kind: 'sky';
  /** Farthest distance at which a dark hill is still seen. */
  visibility_km: number;
  /** 0 clear to 1 overcast. */
  cloud: number;
  /** Heaped clouds; null for none. */
  heaps: Heaps | null;
  brightness_ev: number;
  /** Sun, sky and moon apart, against their true strength. */
  sun_ev: number;
  sky_ev: number;
  moon_ev: number;
  /** And against their true colour, mired: positive is warmer. */
  sun_warmth: number;
  sky_warmth: number;
  moon_warmth: number;
}
export interface StudioSurroundings extends StudioChoice {
  kind: 'studio';
  /** The set that it began with: its ceiling, and its lamps and paper where none are stated. */
  set: StudioSetKey;
  /** Null: those of the set, sized by the model. */
  lamps: StudioLamp[] | null;
  backdrop: Backdrop | null;
  /** Share of light that the paper gives back. */
  paper: number | null;
  rotation_deg: number;
  brightness_ev: number;
}
export interface CapturedSurroundings {
  kind: 'captured';
  /** Path for the command; in the application the content hash of an uploaded image. */
  file: string;
  rotation_deg: number;
  brightness_ev: number;
  /**
   * `image`: as it was captured; `true`: cut out, and a sun of its light and true size in its place; `none`: cut out.
   */
  sun: CapturedSun;
  /** How far that sun is turned against the image. */
  sun_turn_deg: number;
  /** How far the camera looked up, and how far its right side hung down. */
  pitch_deg: number;
  roll_deg: number;
  /** Whether mirrors and gloss show it; it lights in any case. */
  in_reflections: boolean;
  /** Halved until it is no wider, px; null: as fine as it is. */
  most_px: number | null;
}
export type CapturedSun = 'image' | 'true' | 'none';
/** The light of a room that is not modelled. */
export interface RoomSurroundings {
  kind: 'room';
  room: RoomKey;
  rotation_deg: number;
  brightness_ev: number;
}
export type Surroundings =
  | RoomSurroundings
  | EvenSurroundings
  | SkySurroundings
  | StudioSurroundings
  | CapturedSurroundings;
export type SurroundingsKind = Surroundings['kind'];

export interface ShadowGround {
  kind: 'shadow';
  /** Where it lies; null: at the model's foot. */
  height_m: number | null;
  /** Share of light that it mirrors, seen from above; it shows the model alone. 0 for none. */
  polish: number;
  /** Of the polish, 0 a mirror. */
  roughness: number;
  /** How far from the model it has faded, in sizes of the model. */
  reach: number;
}
/** What the model stands on, beside what it brings itself. */
export type Ground = { kind: 'none' } | ShadowGround;

/** A light meter's value, what a meter reads of the frame, or a camera's settings. */
export type Exposure = { ev100: number } | { metered: true } | CameraExposure;
export interface CameraExposure {
  /** Of the exposure alone; depth of field is the viewpoint's. */
  f_number: number;
  shutter_s: number;
  iso: number;
}
/** One matte material over everything, to judge light and form alone; lamps glow on. */
export interface ClayLook {
  kind: 'clay';
  /** Share of light that it gives back. */
  grey: number;
  /** Of the model's materials, the one that is over everything instead of grey; null for grey. */
  material: string | null;
  /** Whether glass stays glass. */
  glass: boolean;
}
export type Look = { kind: 'photographic' } | ClayLook;

export interface BriefQuality {
  step: QualityKey;
  /** Samples per pixel: exact when grain is null, else the limit. */
  samples: number;
  /** Raw grain in L* at which a tile is done. */
  grain: number | null;
  /** Samples that a tile has before that. */
  least: number;
  bounces: number;
  /** Share of the full size that is rendered. */
  scale: number;
  /** Most that one indirect contribution may weigh, in multiples of the exposure's white; null for no limit. */
  firefly: number | null;
  /** Of each kind of scattering, how many a path may have before its last one; null for no limit but `bounces`. */
  diffuse: number | null;
  gloss: number | null;
  glass: number | null;
  /** Sheer surfaces that a path may pass: leaves, nets, panes. */
  passes: number;
  /** Time after which the render ends with what there is, minutes. */
  minutes: number | null;
  /** Half the width of the pixel filter. */
  filter_px: number;
  /** Whether glowing surfaces light the scene, or only show. */
  glow: boolean;
  /** Keeps each light group's share of the picture in a layer of its own. */
  layers: boolean;
  /** Groups of the model's objects that quick looks go without: in Glance and Study alone. */
  aside: string[];
  /** And those that stand there as slim copies. */
  slim: string[];
  /** And materials, by name, that are matte there, of their own colour. */
  plain: string[];
  /** Keep masks of objects and materials, depth, and light by its way, for EXR. */
  aids: boolean;
}

/**
 * What is seen where nothing stands: the surroundings, nothing, an even grey of this CIE L*, two colours (six digits
 * each) that grade into each other, paper, or a picture.
 */
export type Background =
  | { kind: 'own' }
  | { kind: 'clear' }
  | { kind: 'plain'; lightness: number }
  | GradedBackground
  | PaperBackground
  | PictureBackground;
export interface GradedBackground {
  kind: 'graded';
  from: string;
  to: string;
  /** Where to: 0 downward, 90 to the right. */
  angle_deg: number;
  /** Share of the picture over which they grade. */
  spread: number;
}
export interface PaperBackground {
  kind: 'paper';
  /** L*. */
  lightness: number;
  /** That it grows lighter to, by `fall` L*; darker when that is negative. */
  corner: Corner | null;
  fall: number;
  /** Of its own, L*. */
  grain: number;
}

/** A picture that covers the sheet. */
export interface PictureBackground {
  kind: 'picture';
  /** Path for the command; in the application the content hash of a picture that was brought in. */
  file: string;
  /** Where it lies where it overhangs: 0 its left or upper edge at the sheet's, 1 its right or lower one. */
  across: number;
  down: number;
  /** Times as large as it must be to cover the sheet. */
  enlarged: number;
  lighter_ev: number;
}

export interface Finish {
  exposure_ev: number;
  /** The light that is to look white; null: that of D65, as rendered. */
  white: WhiteBalance | null;
  denoise: number;
  /** Whether it is shown denoised while it renders, each time that its samples have grown fourfold. */
  denoise_meanwhile: boolean;
  background: Background;
}

/** Where a picture will be seen. Decides nothing of the film; its size does. */
export interface Seen {
  /** What was chosen, by name, and the size that it asks for; null for none. */
  destination: { name: string; size: SizeChoice } | null;
  /** From the eye; null for a screen. */
  distance_m: number | null;
  /** That it is handed over in. */
  file: FileKind;
}

/** What a try renders of its picture. */
export type Patch = SheetShare;

export interface Brief {
  version: typeof BRIEF_VERSION;
  viewpoint: Viewpoint;
  surroundings: Surroundings;
  look: Look;
  exposure: Exposure;
  size: SizeChoice;
  /** Of a proof: that it shows this rectangle alone; a picture's own brief has none. */
  patch: Patch | null;
  /** How far a sheet's picture reaches beyond the trim. */
  bleed_mm: number;
  seen: Seen;
  quality: BriefQuality;
  ground: Ground;
  /**
   * Openings without a pane through which a room gets its light, beside those of the model; they make it clean sooner,
   * not brighter.
   */
  openings: OpenFrame[];
  /** Of the model's lamps, what differs from the model, and lamps of the picture's own. */
  lamps: { groups: LampSetting[]; only: string | null; added: AddedLamp[]; regrouped: Regrouped[] };
  finish: Finish;
}

/** What a brief means that does not say its least samples, and so what films of before were made with. */
const LEAST_UNSAID = 32;

/** What a brief means where it says nothing. */
export const BRIEF_DEFAULTS: Brief = {
  version: BRIEF_VERSION,
  viewpoint: {
    position_m: [0, 1.6, 4],
    target_m: [0, 1, 0],
    up: [0, 1, 0],
    projection: 'perspective',
    focal_length_mm: 35,
    sensor_height_mm: 24,
    f_number: null,
    focus_m: null,
    height_m: null
  },
  surroundings: { kind: 'even', radiance: 1, color: [1, 1, 1] },
  look: { kind: 'photographic' },
  exposure: { ev100: 12 },
  size: { width_px: 600, height_px: 400 },
  patch: null,
  bleed_mm: 0,
  seen: { destination: null, distance_m: null, file: 'png' },
  quality: {
    step: 'study',
    samples: 96,
    grain: null,
    least: LEAST_UNSAID,
    bounces: 10,
    scale: 1,
    firefly: null,
    diffuse: null,
    gloss: null,
    glass: null,
    passes: 256,
    minutes: null,
    filter_px: 1.5,
    glow: true,
    layers: false,
    aids: false,
    aside: [],
    slim: [],
    plain: []
  },
  ground: { kind: 'none' },
  openings: [],
  lamps: { groups: [], only: null, added: [], regrouped: [] },
  finish: { exposure_ev: 0, white: null, denoise: 0, denoise_meanwhile: false, background: { kind: 'own' } }
};

export const SURROUNDINGS_DEFAULTS: { [K in SurroundingsKind]: Extract<Surroundings, { kind: K }> } = {
  even: { kind: 'even', radiance: 1, color: [1, 1, 1] },
  sky: {
    kind: 'sky',
    latitude_deg: 49.4,
    longitude_deg: 15.6,
    time: '2026-06-21T15:00:00+01:00',
    north_deg: 0,
    visibility_km: 40,
    mirror_deg: null,
    cloud: 0,
    heaps: null,
    brightness_ev: 0,
    sun_ev: 0,
    sky_ev: 0,
    moon_ev: 0,
    sun_warmth: 0,
    sky_warmth: 0,
    moon_warmth: 0
  },
  studio: { kind: 'studio', set: 'three', lamps: null, backdrop: null, paper: null, rotation_deg: 0, brightness_ev: 0 },
  room: { kind: 'room', room: 'windows', rotation_deg: 0, brightness_ev: 0 },
  captured: {
    kind: 'captured',
    file: '',
    rotation_deg: 0,
    brightness_ev: 0,
    sun: 'image',
    sun_turn_deg: 0,
    pitch_deg: 0,
    roll_deg: 0,
    in_reflections: true,
    most_px: null
  }
};

export const CLAY_DEFAULTS: ClayLook = { kind: 'clay', grey: 0.6, material: null, glass: true };

export const HEAPS_DEFAULTS: Heaps = { cover: 0.4, base_m: 1200, seed: 1, sun: 'free' };

export const GROUND_DEFAULTS: ShadowGround = { kind: 'shadow', height_m: null, polish: 0, roughness: 0.2, reach: 4 };

/** JSON with sorted keys and no space: the same document has the same bytes. */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value && typeof value === 'object') {
    const entries = Object.entries(value as Record<string, unknown>).filter(([, v]) => v !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
    return `{${entries.map(([k, v]) => `${JSON.stringify(k)}:${canonicalJson(v)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}

/**
 * The part of a brief that decides the film: no finish (it never needs a new render), not where it is seen, and no step
 * name. Samples and grain stay in, because with the default limits they decide where each tile stops.
 */
export function filmBrief(brief: Brief): FilmBrief {
  const { finish: _finish, seen: _seen, patch, bleed_mm, openings, quality, surroundings, ...rest } = brief;
  const { aside: _aside, slim: _slim, plain: _plain, least: said, ...always } = quality;
  const least = Math.max(FIRST_DECISION, said);
  return {
    ...rest,
    surroundings: filmSurroundings(surroundings),
    ...(openings.length > 0 ? { openings } : {}),
    quality: {
      ...always,
      ...setAsideOf(brief),
      ...(quality.grain !== null && least !== LEAST_UNSAID ? { least } : {})
    },
    ...(patch ? { patch } : bleed_mm > 0 && 'ppi' in brief.size ? { bleed_mm } : {})
  };
}

function filmSurroundings(surroundings: Surroundings): FilmBrief['surroundings'] {
  if (surroundings.kind !== 'captured' || surroundings.most_px !== null) return surroundings;
  const { most_px: _most_px, ...as } = surroundings;
  return as;
}

/** What came to briefs later is there only where it says something, so that films of before are still found. */
export type FilmBrief = Omit<
  Brief,
  'finish' | 'seen' | 'patch' | 'bleed_mm' | 'openings' | 'quality' | 'surroundings'
> & {
  surroundings: Surroundings | Omit<CapturedSurroundings, 'most_px'>;
  patch?: Patch;
  bleed_mm?: number;
  openings?: OpenFrame[];
  quality: Omit<BriefQuality, 'aside' | 'slim' | 'plain' | 'least'> & SetAside & { least?: number };
};

/**
 * Groups of objects that are left out, those that are slim copies, and materials that are plain; not there where there
 * are none.
 */
export interface SetAside {
  aside?: readonly string[];
  slim?: readonly string[];
  plain?: readonly string[];
}

/** Nothing where the picture is to be shown. */
export function setAsideOf({ quality: { step, aside, slim, plain } }: Pick<Brief, 'quality'>): SetAside {
  if (step !== 'glance' && step !== 'study') return {};
  const thin = slim.filter((g) => !isAmong(aside, g));
  return {
    ...(aside.length > 0 ? { aside: [...aside].sort() } : {}),
    ...(thin.length > 0 ? { slim: thin.sort() } : {}),
    ...(plain.length > 0 ? { plain: [...plain].sort() } : {})
  };
}

/** What of a finish decides the picture that is made of a film; two of an equal one look alike. */
export const developKey = ({ exposure_ev, white, denoise, background }: Finish): string =>
  canonicalJson({ exposure_ev, white, denoise, background });
