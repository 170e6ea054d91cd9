/**
 * The brief: everything that decides a picture, as one versioned document. Its fields are defined once, in fields/; here
 * are its types, its defaults, and what of it decides film and finish. Described for users in docs/brief.md.
 */
import { FIRST_DECISION } from '../film/film';
import { isAmong } from '../scene/lamp-groups';
import { isMoved } from '../scene/pose';
import { canonicalJson } from './canonical-json';
import { BRIEF, type Brief } from './fields/brief-fields';
import { defaultOf, variantDefault } from './fields/field';
import { SURROUNDINGS } from './fields/surroundings-fields';
import { type Change, changesBetween, partOf } from './fields/walk';

export { canonicalJson } from './canonical-json';
export { BRIEF_VERSION, type Brief } from './fields/brief-fields';

export type Surroundings = Brief['surroundings'];
export type SurroundingsKind = Surroundings['kind'];
export type SkySurroundings = Extract<Surroundings, { kind: 'sky' }>;
export type StudioSurroundings = Extract<Surroundings, { kind: 'studio' }>;
export type CapturedSurroundings = Extract<Surroundings, { kind: 'captured' }>;
export type CapturedSun = CapturedSurroundings['sun'];
export type Look = Brief['look'];
export type ClayLook = Extract<Look, { kind: 'clay' }>;
export type Exposure = Brief['exposure'];
export type CameraExposure = Extract<Exposure, { iso: number }>;
export type Ground = Brief['ground'];
export type ShadowGround = Extract<Ground, { kind: 'shadow' }>;
export type BriefQuality = Brief['quality'];
export type Finish = Brief['finish'];
export type Background = Finish['background'];
export type GradedBackground = Extract<Background, { kind: 'graded' }>;
export type PaperBackground = Extract<Background, { kind: 'paper' }>;
export type PictureBackground = Extract<Background, { kind: 'picture' }>;
export type Seen = Brief['seen'];
/** A part of the model that is turned, moved or not seen. */
export type PosedPart = Brief['pose'][number];
export type PlacedPiece = Brief['placed'][number];
/** The rectangle of a picture that alone is rendered, in shares of its sides. */
export type Patch = NonNullable<Brief['patch']>;

/** What a brief means where it says nothing. */
export const BRIEF_DEFAULTS: Brief = defaultOf(BRIEF);

export const SURROUNDINGS_DEFAULTS = Object.fromEntries(
  Object.keys(SURROUNDINGS.variants).map((kind) => [kind, variantDefault(SURROUNDINGS, kind)])
) as { [K in SurroundingsKind]: Extract<Surroundings, { kind: K }> };

const { look, ground } = BRIEF.fields;
export const CLAY_DEFAULTS = variantDefault(look, 'clay') as ClayLook;
export const CUMULUS_DEFAULTS = defaultOf(SURROUNDINGS.variants.sky.fields.cumulus.of) as NonNullable<
  SkySurroundings['cumulus']
>;
export const GROUND_DEFAULTS = variantDefault(ground, 'shadow') as ShadowGround;

/** The part of a brief that decides the film, for hashing and comparing. Equal parts mean equal bits. */
export const filmBrief = (brief: Brief): object =>
  (partOf(BRIEF, relevant(brief), ({ decides }) => decides === 'film') as object | undefined) ?? {};

/** The part of it that decides what a sample costs and what grain it leaves, however many there are. */
export const samplingBrief = (brief: Brief): object =>
  (partOf(BRIEF, relevant(brief), ({ decides, amount }) => decides === 'film' && !amount) as object | undefined) ?? {};

/** What of a finish decides the picture that is made of a film; two of an equal key look alike. */
export const developKey = (finish: Finish): string =>
  canonicalJson(partOf(BRIEF.fields.finish, finish, ({ decides }) => decides === 'finish') ?? {});

/** A brief in which what has no effect as it stands is at its default. */
function relevant(brief: Brief): Brief {
  const { quality, patch, bleed_mm, size } = brief;
  const { aside = [], slim = [], plain = [] } = setAsideOf(brief);
  const { min_samples } = BRIEF_DEFAULTS.quality;
  const { pose = [], placed = [] } = arrangementOf(brief);
  return {
    ...brief,
    pose: [...pose],
    placed: [...placed],
    // a patch lies within the trim
    bleed_mm: patch === null && 'ppi' in size ? bleed_mm : 0,
    quality: {
      ...quality,
      aside: [...aside],
      slim: [...slim],
      plain: [...plain],
      min_samples: quality.grain === null ? min_samples : Math.max(FIRST_DECISION, quality.min_samples)
    }
  };
}

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

/** What is posed, placed and drawn of curves; not there where there is nothing. */
export function arrangementOf({ pose, placed, curves_mm }: Arranged): Partial<Arranged> {
  const posed = pose.filter((p) => p.seen !== 'whole' || isMoved(p)).sort((a, b) => (a.part < b.part ? -1 : 1));
  const there = placed.filter((p) => p.seen !== 'out');
  return {
    ...(posed.length > 0 ? { pose: posed } : {}),
    ...(there.length > 0 ? { placed: there } : {}),
    ...(curves_mm === null ? {} : { curves_mm })
  };
}
type Arranged = Pick<Brief, 'pose' | 'placed' | 'curves_mm'>;

/** A material of the library, changed or not, with pictures on it or none. */
export type Swatch = Pick<Brief['materials'][number], 'becomes' | 'change' | 'texture'>;

/** In which fields two briefs differ, each with the word of the sentence that names it. */
export const briefChanges = (brief: Brief, other: Brief): Change[] => changesBetween(BRIEF, other, brief);
