/** The brief's contract, version 1. Ranges stand here; what the fields mean stands in core/brief and docs/brief.md. */
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsISO8601,
  IsOptional,
  IsString,
  MaxLength,
  MinLength,
  ValidateIf
} from 'class-validator';
import {
  BRIEF_DEFAULTS,
  BRIEF_VERSION,
  type Brief,
  type BriefQuality,
  type CameraExposure,
  type CapturedSun,
  CLAY_DEFAULTS,
  type ClayLook,
  GROUND_DEFAULTS,
  HEAPS_DEFAULTS,
  type ShadowGround,
  SURROUNDINGS_DEFAULTS,
  type Surroundings,
  type SurroundingsKind
} from '../core/brief/brief';
import type { FreeViewpoint, Viewpoint } from '../core/camera/viewpoint';
import { QUALITY_KEYS, QUALITY_STEPS, type QualityKey, stepSettings } from '../core/catalogue/quality';
import { LEAST_KELVIN, MOST_COOL, MOST_KELVIN, MOST_WARM } from '../core/color/kelvin';
import { MOST_TINT } from '../core/color/white-balance';
import { HEAP_SUNS, type Heaps } from '../core/lights/sky/heaps';
import { ROOM_KEYS, type RoomKey } from '../core/lights/room/room';
import { ADDED_FORMS, type AddedForm, type AddedLamp } from '../core/scene/added-lamps';
import type { OpenFrame } from '../core/scene/opening';
import type { LampSetting, Regrouped } from '../core/scene/dim-lamps';
import { LAMP_FORMS, LAMP_ROLES, type LampForm, type LampRole, type StudioLamp } from '../core/lights/studio/lamp';
import { BACKDROPS, type Backdrop, STUDIO_SET_KEYS, type StudioSetKey } from '../core/lights/studio/sets';
import { parseFinish } from './finish';
import { FAR_M, notNull, OneOf, parseList, Range, type Triple, variant, Vector, WholeRange } from './ranges';
import { parseBleed, parsePatch, parseSeen, parseSize } from './size';
import { type Checked, quoted, refuse } from './validate';

const base = BRIEF_DEFAULTS;
const view = base.viewpoint as FreeViewpoint;

class FreeViewpointContract implements FreeViewpoint {
  @Vector(-FAR_M, FAR_M) position_m: Triple = view.position_m;
  @Vector(-FAR_M, FAR_M) target_m: Triple = view.target_m;
  @Vector(-1e3, 1e3) up: Triple = view.up;
  @OneOf(['perspective', 'parallel']) projection: 'perspective' | 'parallel' = view.projection;
  @Range(4, 2000, 'mm') focal_length_mm: number = view.focal_length_mm;
  @Range(1, 500, 'mm') sensor_height_mm: number = view.sensor_height_mm;
  @ValidateIf((o: FreeViewpointContract) => o.f_number !== null) @Range(0.5, 128) f_number: number | null = null;
  @ValidateIf((o: FreeViewpointContract) => o.focus_m !== null) @Range(0.001, FAR_M, 'm') focus_m: number | null = null;
  @ValidateIf((o: FreeViewpointContract) => o.height_m !== null) @Range(0.0001, FAR_M, 'm') height_m: number | null =
    null;
}

class NamedViewpointContract {
  @IsString({ message: 'must be the name of a camera in the model' }) @MinLength(1) @MaxLength(200) camera = '';
}

class EvenContract {
  @OneOf(['even']) kind = 'even' as const;
  @Range(0, 1e9, 'cd/m2') radiance = SURROUNDINGS_DEFAULTS.even.radiance;
  @Vector(0, 1000) color: Triple = [1, 1, 1];
}
class SkyContract {
  @OneOf(['sky']) kind = 'sky' as const;
  @Range(-90, 90, 'degrees') latitude_deg = SURROUNDINGS_DEFAULTS.sky.latitude_deg;
  @Range(-180, 180, 'degrees') longitude_deg = SURROUNDINGS_DEFAULTS.sky.longitude_deg;
  @IsISO8601({ strict: true }, { message: 'must be a time in ISO 8601, as 2026-06-21T15:00:00+01:00' }) time =
    SURROUNDINGS_DEFAULTS.sky.time;
  @Range(-360, 360, 'degrees') north_deg = 0;
  @Range(2, 200, 'km') visibility_km = SURROUNDINGS_DEFAULTS.sky.visibility_km;
  @ValidateIf((o: SkyContract) => o.mirror_deg !== null) @Range(-360, 360, 'degrees') mirror_deg: number | null = null;
  @Range(0, 1) cloud = 0;
  @IsOptional() heaps: unknown = null;
  @Range(-10, 10, 'EV') brightness_ev = 0;
  @Range(-10, 10, 'EV') sun_ev = 0;
  @Range(-10, 10, 'EV') sky_ev = 0;
  @Range(-10, 20, 'EV') moon_ev = 0;
  @Range(MOST_COOL, MOST_WARM, 'mired') sun_warmth = 0;
  @Range(MOST_COOL, MOST_WARM, 'mired') sky_warmth = 0;
  @Range(MOST_COOL, MOST_WARM, 'mired') moon_warmth = 0;
}
class HeapsContract implements Heaps {
  @Range(0, 1) cover = HEAPS_DEFAULTS.cover;
  @Range(200, 6000, 'm') base_m = HEAPS_DEFAULTS.base_m;
  @WholeRange(0, 1_000_000) seed = HEAPS_DEFAULTS.seed;
  @OneOf(HEAP_SUNS) sun: Heaps['sun'] = HEAPS_DEFAULTS.sun;
}
class StudioLampContract implements StudioLamp {
  @IsString({ message: 'must be a name' }) @MinLength(1, { message: 'must not be empty' }) @MaxLength(60) name = 'Lamp';
  @OneOf(LAMP_ROLES) role: LampRole = 'accent';
  @OneOf(LAMP_FORMS) form: LampForm = 'softbox';
  @IsBoolean({ message: 'must be true or false' }) on = true;
  @Range(-360, 360, 'degrees') azimuth_deg = 0;
  @Range(-90, 90, 'degrees') elevation_deg = 30;
  @Range(0.001, 1e5, 'm') distance_m = 2;
  @Range(0.0001, 1e5, 'm') width_m = 1;
  @Range(0.0001, 1e5, 'm') height_m = 1;
  @Range(-360, 360, 'degrees') turn_deg = 0;
  @Range(LEAST_KELVIN, MOST_KELVIN, 'K') kelvin = 5500;
  @Range(-MOST_TINT, MOST_TINT) tint = 0;
  @Range(0, 1e12, 'lm') lumen = 10_000;
}
const MOST_STUDIO_LAMPS = 24;
class StudioContract {
  @OneOf(['studio']) kind = 'studio' as const;
  @OneOf(STUDIO_SET_KEYS) set: StudioSetKey = 'three';
  @IsOptional() lamps: unknown = null;
  @ValidateIf((o: StudioContract) => o.backdrop !== null) @OneOf(BACKDROPS) backdrop: Backdrop | null = null;
  @ValidateIf((o: StudioContract) => o.paper !== null) @Range(0, 0.95) paper: number | null = null;
  @Range(-360, 360, 'degrees') rotation_deg = 0;
  @Range(-10, 10, 'EV') brightness_ev = 0;
}
class CapturedContract {
  @OneOf(['captured']) kind = 'captured' as const;
  @IsString({ message: 'must name an .hdr or .exr file' })
  @MinLength(1, { message: 'must name an .hdr or .exr file' })
  @MaxLength(4096)
  file = '';
  @Range(-360, 360, 'degrees') rotation_deg = 0;
  @Range(-20, 20, 'EV') brightness_ev = 0;
  @OneOf(['image', 'true', 'none']) sun: CapturedSun = 'image';
  @Range(-360, 360, 'degrees') sun_turn_deg = 0;
  @Range(-90, 90, 'degrees') pitch_deg = 0;
  @Range(-180, 180, 'degrees') roll_deg = 0;
  @IsBoolean({ message: 'must be true or false' }) in_reflections = true;
  @ValidateIf((o: CapturedContract) => o.most_px !== null) @WholeRange(512, 32_768) most_px: number | null = null;
}
class RoomContract {
  @OneOf(['room']) kind = 'room' as const;
  @OneOf(ROOM_KEYS) room: RoomKey = 'windows';
  @Range(-360, 360, 'degrees') rotation_deg = 0;
  @Range(-20, 20, 'EV') brightness_ev = 0;
}
const SURROUNDINGS = {
  room: RoomContract,
  even: EvenContract,
  sky: SkyContract,
  studio: StudioContract,
  captured: CapturedContract
} as const;

class PhotographicContract {
  @OneOf(['photographic', 'clay']) kind = 'photographic' as const;
}
class ClayContract implements ClayLook {
  @OneOf(['clay']) kind = 'clay' as const;
  @Range(0.02, 0.95) grey = CLAY_DEFAULTS.grey;
  @ValidateIf((o: ClayContract) => o.material !== null)
  @IsString({ message: 'must be the name of a material of the model or null' })
  @MaxLength(200)
  material: string | null = null;
  @IsBoolean({ message: 'must be true or false' }) glass = CLAY_DEFAULTS.glass;
}
class FixedExposureContract {
  @Range(-16, 24, 'EV') ev100 = 12;
}
class CameraExposureContract implements CameraExposure {
  @Range(0.5, 128) f_number = 8;
  @Range(1e-6, 1e5, 's') shutter_s = 0.01;
  @Range(1, 1e6) iso = 100;
}
class MeteredContract {
  @IsIn([true], { message: 'must be true' }) metered = true as const;
}

class QualityContract implements BriefQuality {
  @OneOf(QUALITY_KEYS) step: QualityKey = base.quality.step;
  @WholeRange(1, 65536) samples = base.quality.samples;
  @ValidateIf((o: QualityContract) => notNull(o, o.grain)) @Range(0.01, 20, 'L*') grain: number | null = null;
  @WholeRange(1, 65536) least = base.quality.least;
  @WholeRange(0, 64) bounces = base.quality.bounces;
  @Range(0.01, 1) scale = base.quality.scale;
  @ValidateIf((o: QualityContract) => notNull(o, o.firefly)) @Range(0.1, 1e6) firefly: number | null = null;
  @ValidateIf((o: QualityContract) => notNull(o, o.diffuse)) @WholeRange(0, 64) diffuse: number | null = null;
  @ValidateIf((o: QualityContract) => notNull(o, o.gloss)) @WholeRange(0, 64) gloss: number | null = null;
  @ValidateIf((o: QualityContract) => notNull(o, o.glass)) @WholeRange(0, 64) glass: number | null = null;
  @WholeRange(0, 1024) passes = base.quality.passes;
  @ValidateIf((o: QualityContract) => notNull(o, o.minutes)) @Range(0.05, 10_000, 'minutes') minutes: number | null =
    null;
  @Range(0.5, 4, 'px') filter_px = base.quality.filter_px;
  @IsBoolean({ message: 'must be true or false' }) glow = base.quality.glow;
  @IsBoolean({ message: 'must be true or false' }) layers = base.quality.layers;
  @IsBoolean({ message: 'must be true or false' }) aids = base.quality.aids;
  @IsArray({ message: 'must be a list of groups of objects' })
  @ArrayMaxSize(100)
  @IsString({ each: true, message: 'must be a list of groups of objects' })
  @MaxLength(200, { each: true })
  aside: string[] = [];
  @IsArray({ message: 'must be a list of groups of objects' })
  @ArrayMaxSize(100)
  @IsString({ each: true, message: 'must be a list of groups of objects' })
  @MaxLength(200, { each: true })
  slim: string[] = [];
  @IsArray({ message: 'must be a list of materials' })
  @ArrayMaxSize(100)
  @IsString({ each: true, message: 'must be a list of materials' })
  @MaxLength(200, { each: true })
  plain: string[] = [];
}
class NoGroundContract {
  @IsIn(['none'], { message: 'must be one of none, shadow' }) kind = 'none' as const;
}
class ShadowGroundContract implements ShadowGround {
  @OneOf(['shadow']) kind = 'shadow' as const;
  @ValidateIf((o: ShadowGroundContract) => o.height_m !== null) @Range(-FAR_M, FAR_M, 'm') height_m: number | null =
    GROUND_DEFAULTS.height_m;
  @Range(0, 1) polish = GROUND_DEFAULTS.polish;
  @Range(0, 1) roughness = GROUND_DEFAULTS.roughness;
  @Range(0.5, 100, 'sizes of the model') reach = GROUND_DEFAULTS.reach;
}
class OpeningContract implements OpenFrame {
  @Vector(-FAR_M, FAR_M) middle_m: Triple = [0, 0, 0];
  @Vector(-1, 1) normal: Triple = [0, 0, 1];
  @Range(0.01, 1000, 'm') width_m = 1;
  @Range(0.01, 1000, 'm') height_m = 1;
}
const MOST_OPENINGS = 32;
class LampsContract {
  @IsOptional() groups: unknown = [];
  @IsOptional() added: unknown = [];
  @IsOptional() regrouped: unknown = [];
  @ValidateIf((o: LampsContract) => o.only !== null)
  @IsString({ message: 'must be the name of a group of lamps or null' })
  @MaxLength(200)
  only: string | null = null;
}
class LampSettingContract implements LampSetting {
  @IsString({ message: 'must be the name of a group of lamps' })
  @MinLength(1, { message: 'must be the name of a group of lamps' })
  @MaxLength(200)
  group = '';
  @IsBoolean({ message: 'must be true or false' }) on = true;
  @Range(-20, 20, 'EV') dim_ev = 0;
  @ValidateIf((o: LampSettingContract) => o.kelvin !== null) @Range(LEAST_KELVIN, MOST_KELVIN, 'K') kelvin:
    | number
    | null = null;
  @ValidateIf((o: LampSettingContract) => o.photometry !== null)
  @IsString({ message: 'must name a photometric file or be null' })
  @MaxLength(4096)
  photometry: string | null = null;
}
class AddedLampContract implements AddedLamp {
  @IsString({ message: 'must be a name' }) @MinLength(1, { message: 'must not be empty' }) @MaxLength(60) name = 'Spot';
  @OneOf(ADDED_FORMS) form: AddedForm = 'spot';
  @Vector(-FAR_M, FAR_M) position_m: Triple = [0, 2, 0];
  @Vector(-1, 1) direction: Triple = [0, -1, 0];
  @Range(-360, 360, 'degrees') turn_deg = 0;
  @Range(0.0001, 1000, 'm') width_m = 0.6;
  @Range(0.0001, 1000, 'm') height_m = 0.6;
  @Range(2, 178, 'degrees') beam_deg = 36;
  @Range(0, 1e9, 'lm') lumen = 800;
  @Range(LEAST_KELVIN, MOST_KELVIN, 'K') kelvin = 3000;
  @Range(-MOST_TINT, MOST_TINT) tint = 0;
  @ValidateIf((o: AddedLampContract) => o.photometry !== null)
  @IsString({ message: 'must name a photometric file or be null' })
  @MaxLength(4096)
  photometry: string | null = null;
}
class RegroupedContract implements Regrouped {
  @IsString({ message: 'must be the name of a lamp' })
  @MinLength(1, { message: 'must be the name of a lamp' })
  @MaxLength(200)
  lamp = '';
  @IsString({ message: 'must be the name of a group of lamps' })
  @MinLength(1, { message: 'must be the name of a group of lamps' })
  @MaxLength(200)
  group = '';
}
const MOST_ADDED_LAMPS = 64;
const MOST_REGROUPED = 5000;
const MOST_LAMP_GROUPS = 500;

const SECTIONS = [
  'version',
  'viewpoint',
  'surroundings',
  'look',
  'exposure',
  'size',
  'patch',
  'bleed_mm',
  'seen',
  'quality',
  'ground',
  'openings',
  'lamps',
  'finish'
] as const;

/** Checks a brief of version 1 and fills in what it leaves out. The message names the field and the allowed range. */
export function parseBrief(input: unknown): Checked<Brief> {
  if (input === null || typeof input !== 'object' || Array.isArray(input))
    return refuse(`brief must be an object, got ${quoted(input)}`);
  const given = input as Record<string, unknown>;
  for (const key of Object.keys(given)) {
    if (!(SECTIONS as readonly string[]).includes(key))
      return refuse(`brief.${key} is not a known field; the fields are ${SECTIONS.join(', ')}`);
  }
  if (given.version !== BRIEF_VERSION)
    return refuse(`brief.version must be ${BRIEF_VERSION}, got ${quoted(given.version)}`);

  const viewpoint = variant<Viewpoint>(given.viewpoint, 'brief.viewpoint', base.viewpoint, (v) =>
    'camera' in v ? NamedViewpointContract : FreeViewpointContract
  );
  if (!viewpoint.ok) return viewpoint;
  const surroundings = parseSurroundings(given.surroundings);
  if (!surroundings.ok) return surroundings;
  const look = variant<Brief['look']>(given.look, 'brief.look', base.look, (v) =>
    (v as { kind?: unknown }).kind === 'clay' ? ClayContract : PhotographicContract
  );
  if (!look.ok) return look;
  const exposure = variant<Brief['exposure']>(given.exposure, 'brief.exposure', base.exposure, (v) =>
    'metered' in v
      ? MeteredContract
      : 'shutter_s' in v || 'iso' in v || 'f_number' in v
        ? CameraExposureContract
        : FixedExposureContract
  );
  if (!exposure.ok) return exposure;
  const size = parseSize(given.size);
  if (!size.ok) return size;
  const patch = parsePatch(given.patch);
  if (!patch.ok) return patch;
  const bleed = parseBleed(given.bleed_mm);
  if (!bleed.ok) return bleed;
  const seen = parseSeen(given.seen);
  if (!seen.ok) return seen;
  const quality = parseQuality(given.quality);
  if (!quality.ok) return quality;
  const ground = variant<Brief['ground']>(given.ground, 'brief.ground', base.ground, (v) =>
    (v as { kind?: unknown }).kind === 'shadow' ? ShadowGroundContract : NoGroundContract
  );
  if (!ground.ok) return ground;
  const openings = parseList(given.openings ?? [], 'brief.openings', OpeningContract, MOST_OPENINGS, 'openings');
  if (!openings.ok) return openings;
  const lamps = parseLampChoice(given.lamps);
  if (!lamps.ok) return lamps;
  const finish = parseFinish(given.finish);
  if (!finish.ok) return finish;
  return {
    ok: true,
    value: {
      version: BRIEF_VERSION,
      viewpoint: viewpoint.value,
      surroundings: surroundings.value,
      look: look.value,
      exposure: exposure.value,
      size: size.value,
      patch: patch.value,
      bleed_mm: bleed.value,
      seen: seen.value,
      quality: quality.value,
      ground: ground.value,
      openings: openings.value,
      lamps: lamps.value,
      finish: finish.value
    }
  };
}

export function parseSurroundings(input: unknown): Checked<Surroundings> {
  const place = 'brief.surroundings';
  if (input === undefined) return { ok: true, value: base.surroundings };
  if (input === null || typeof input !== 'object') return refuse(`${place} must be an object, got ${quoted(input)}`);
  const kind = (input as { kind?: unknown }).kind;
  if (typeof kind !== 'string' || !(kind in SURROUNDINGS))
    return refuse(`${place}.kind must be one of ${Object.keys(SURROUNDINGS).join(', ')}, got ${quoted(kind)}`);
  const result = variant<Surroundings>(input, place, base.surroundings, () => SURROUNDINGS[kind as SurroundingsKind]);
  if (result.ok && result.value.kind === 'sky' && Number.isNaN(Date.parse(result.value.time)))
    return refuse(`${place}.time must be a time in ISO 8601, got ${quoted(result.value.time)}`);
  if (result.ok && result.value.kind === 'sky' && result.value.heaps !== null) {
    const heaps = variant<Heaps>(result.value.heaps, `${place}.heaps`, HEAPS_DEFAULTS, () => HeapsContract);
    return heaps.ok ? { ok: true, value: { ...result.value, heaps: heaps.value } } : heaps;
  }
  if (!result.ok || result.value.kind !== 'studio' || result.value.lamps === null) return result;
  const lamps = parseList<StudioLamp>(
    result.value.lamps,
    `${place}.lamps`,
    StudioLampContract,
    MOST_STUDIO_LAMPS,
    'lamps or null'
  );
  return lamps.ok ? { ok: true, value: { ...result.value, lamps: lamps.value } } : lamps;
}

function parseLampChoice(input: unknown): Checked<Brief['lamps']> {
  const place = 'brief.lamps';
  const outer = variant<Brief['lamps']>(input, place, base.lamps, () => LampsContract);
  if (!outer.ok) return outer;
  const groups = parseList<LampSetting>(
    outer.value.groups,
    `${place}.groups`,
    LampSettingContract,
    MOST_LAMP_GROUPS,
    'groups of lamps'
  );
  if (!groups.ok) return groups;
  const added = parseList<AddedLamp>(outer.value.added, `${place}.added`, AddedLampContract, MOST_ADDED_LAMPS, 'lamps');
  if (!added.ok) return added;
  const dark = added.value.findIndex((l) => Math.hypot(...l.direction) < 1e-6);
  if (dark >= 0) return refuse(`${place}.added[${dark}].direction must not be zero`);
  const regrouped = parseList<Regrouped>(
    outer.value.regrouped,
    `${place}.regrouped`,
    RegroupedContract,
    MOST_REGROUPED,
    'lamps with their groups'
  );
  if (!regrouped.ok) return regrouped;
  return { ok: true, value: { ...outer.value, groups: groups.value, added: added.value, regrouped: regrouped.value } };
}

/** A named step brings its own limits; each may be overruled. */
function parseQuality(input: unknown): Checked<BriefQuality> {
  const step = (input as { step?: unknown } | undefined)?.step;
  const given = input as Partial<BriefQuality> | undefined;
  if (
    given &&
    typeof given === 'object' &&
    !Array.isArray(given) &&
    typeof step === 'string' &&
    step in QUALITY_STEPS &&
    given.samples === undefined
  ) {
    return variant<BriefQuality>(
      { ...stepSettings(step as QualityKey), ...given },
      'brief.quality',
      base.quality,
      () => QualityContract
    );
  }
  return variant<BriefQuality>(input, 'brief.quality', base.quality, () => QualityContract);
}
