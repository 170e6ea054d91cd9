/**
 * The brief as one plain sentence whose words open panels. Composed from the brief alone, so it is always true; clauses
 * at their default are left out. Numbers and their units are joined by a no-break space.
 */
import { DESTINATIONS } from '../output/destinations';
import { QUALITY_STEPS } from '../catalogue/quality';
import { settingOf } from '../scene/dim-lamps';
import { WHOLE } from '../scene/part-paths';
import { isMoved } from '../scene/pose';
import { resolveSize, scaleSize } from '../output/size';
import { ROOMS } from '../lights/room/room';
import { STUDIO_SETS } from '../lights/studio/sets';
import { inWords, kelvinText, NBSP, percentOf } from './amounts';
import type { Word } from './fields/field';
import {
  BRIEF_DEFAULTS,
  briefChanges,
  canonicalJson,
  type Brief,
  type Finish,
  type Ground,
  type Look,
  type SkySurroundings,
  type Surroundings
} from './brief';
import { localTime, twoDigits } from './local-time';
import type { SizeChoice } from '../catalogue/size-choice';

/** The panels of the brief; the keys 1 to 9, and 0 for the tenth, open them, F the finish. */
export const BRIEF_PANELS = [
  'viewpoint',
  'lens',
  'surroundings',
  'lamps',
  'look',
  'exposure',
  'background',
  'size',
  'quality',
  'pose',
  'finish'
] as const;
export type PanelKey = (typeof BRIEF_PANELS)[number];

/** Which panel edits what a word of the sentence names. */
const PANEL_OF: Record<Word, PanelKey> = {
  viewpoint: 'viewpoint',
  lens: 'lens',
  pose: 'pose',
  surroundings: 'surroundings',
  lamps: 'lamps',
  look: 'look',
  exposure: 'exposure',
  background: 'background',
  ground: 'background',
  size: 'size',
  quality: 'quality',
  finish: 'finish'
};

export type SentencePart = { text: string } | { word: string; panel: PanelKey; changed: boolean };

export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December'
] as const;

export function surroundingsPhrase(s: Surroundings, nameOfCaptured: (file: string) => string): string {
  switch (s.kind) {
    case 'sky': {
      const t = localTime(s.time);
      const air = cloudWords(s);
      return `Sky: ${t.day}${NBSP}${MONTHS[t.month - 1]}, ${twoDigits(t.hour)}:${twoDigits(t.minute)}${air ? `, ${air}` : ''}`;
    }
    case 'studio': {
      if (!s.lamps) return `Studio: ${STUDIO_SETS[s.set].name}`;
      const lit = s.lamps.filter((l) => l.on).length;
      return `Studio: ${inWords(lit)} lamp${lit === 1 ? '' : 's'}`;
    }
    case 'captured':
      return `Captured: ${nameOfCaptured(s.file)}`;
    case 'room':
      return `Room: ${ROOMS[s.room].name}`;
    case 'uniform':
      return 'Uniform light';
  }
}

/**
 * What covers a sky, in the words of weather reports (few to 2 eighths, scattered to 4, broken to 7; World
 * Meteorological Organization); null for a clear one.
 */
function cloudWords({ cloud, cumulus }: SkySurroundings): string | null {
  if (cloud >= 0.95) return 'overcast';
  const cover = cumulus?.cover ?? 0;
  const heaped =
    cover === 0 ? null : cover <= 0.25 ? 'few clouds' : cover <= 0.5 ? 'scattered clouds' : 'broken clouds';
  const veil = cloud < 0.15 ? null : cloud <= 0.6 ? 'thin cloud' : 'much cloud';
  return heaped && veil ? `${heaped} under ${veil}` : (heaped ?? veil);
}

const ppiText = (ppi: number) => `${Math.round(ppi * 10) / 10}${NBSP}ppi`;

export function sizePhrase(size: SizeChoice): string {
  if ('paper' in size) return `${size.paper} ${size.orientation} at ${ppiText(size.ppi)}`;
  if ('width_mm' in size)
    return `a sheet of ${size.width_mm}${NBSP}×${NBSP}${size.height_mm}${NBSP}mm at ${ppiText(size.ppi)}`;
  return `a screen of ${size.width_px}${NBSP}×${NBSP}${size.height_px}${NBSP}px`;
}

/** What the destination is called in a sentence: an A3 board, a slide; one of a user's own by its name. */
function destinationPhrase(name: string): string {
  if (!DESTINATIONS.some((d) => d.name === name)) return name;
  return `${/^([aeio]|A\d)/i.test(name) ? 'an' : 'a'} ${small(name)}`;
}

/** The size, and whether it is what its destination asks for. */
function sizeWords({ size, bleed_mm, seen: { destination }, quality }: Brief, changed: boolean): SentencePart[] {
  const bleed = bleed_mm > 0 && 'ppi' in size ? ` with ${bleed_mm}${NBSP}mm bleed` : '';
  const word = (text: string): SentencePart => ({
    word: text + bleed,
    panel: 'size',
    changed
  });
  const drafted = draftedWords(size, quality.scale);
  if (!destination) return [{ text: ', on ' }, word(sizePhrase(size)), ...drafted];
  const name = destinationPhrase(destination.name);
  if (!differs(size, destination.size))
    return [{ text: ', for ' }, word(`${name}${'ppi' in size ? `, ${ppiText(size.ppi)}` : ''}`), ...drafted];
  const { ppi: _, ...sheet } = size as { ppi?: number };
  const { ppi, ...asked } = destination.size as { ppi?: number };
  const wish =
    ppi === undefined
      ? sizePhrase(destination.size).replace(/^a screen of /, '')
      : differs(sheet, asked)
        ? sizePhrase(destination.size)
        : ppiText(ppi);
  return [{ text: ', on ' }, word(sizePhrase(size)), { text: ` (${name} asks for ${wish})` }, ...drafted];
}

/** The density or pixels of the file where the quality renders only a share of the size; empty where it renders all. */
function draftedWords(size: SizeChoice, scale: number): SentencePart[] {
  if (scale === 1) return [];
  const { width_px, height_px } = scaleSize(resolveSize(size), scale);
  const file = 'ppi' in size ? ppiText(size.ppi * scale) : `${width_px}${NBSP}×${NBSP}${height_px}${NBSP}px`;
  return [{ text: `, drafted at ${file}` }];
}

/** The place that asks for just this size. */
export const destinationOfSize = (size: SizeChoice) =>
  DESTINATIONS.find((d) => canonicalJson(d.size) === canonicalJson(size)) ?? null;

/** Short form for lists: "A3 landscape", "4K screen". */
export function sizeLabel(size: SizeChoice): string {
  if ('paper' in size) return `${size.paper} ${size.orientation}`;
  const destination = destinationOfSize(size);
  if (destination) return destination.name;
  if ('width_mm' in size) return `${size.width_mm} × ${size.height_mm}${NBSP}mm`;
  return `${size.width_px} × ${size.height_px}${NBSP}px`;
}

export const groundPhrase = (ground: Ground): string | null =>
  ground.kind === 'none' ? null : ground.polish > 0 ? 'reflecting ground' : 'shadow-only ground';

/** What is posed and placed, counted: "2 parts moved, 1 left out and 3 pieces"; null for the model as it came in. */
export function posePhrase({ pose, placed, curves_mm }: Pick<Brief, 'pose' | 'placed' | 'curves_mm'>): string | null {
  const parts = (n: number) => `${inWords(n)}${NBSP}part${n === 1 ? '' : 's'}`;
  const moved = pose.filter((p) => p.seen !== 'out' && isMoved(p));
  const whole = moved.some((p) => p.part === WHOLE);
  const others = moved.length - (whole ? 1 : 0);
  const out = pose.filter((p) => p.seen === 'out').length;
  const unseen = pose.filter((p) => p.seen === 'indirect' || p.seen === 'shadow').length;
  const words = [
    whole ? 'the model turned' : null,
    others > 0 ? `${parts(others)} moved` : null,
    out > 0 ? `${parts(out)} left out` : null,
    unseen > 0 ? `${parts(unseen)} unseen` : null,
    curves_mm === null ? null : `curves ${curves_mm}${NBSP}mm wide`,
    placed.length > 0 ? `${inWords(placed.length)}${NBSP}placed piece${placed.length === 1 ? '' : 's'}` : null
  ].filter((text) => text !== null);
  if (words.length === 0) return null;
  return words.length === 1 ? words[0]! : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

export const lookPhrase = (look: Look): string =>
  look.kind !== 'clay' ? 'photographic' : look.material !== null ? `all in ${look.material}` : 'in clay';

/** How many materials are other than in the file, and labels; nothing where one material lies over all. */
function wornPhrase({ look, materials, labels }: Pick<Brief, 'look' | 'materials' | 'labels'>): string {
  if (look.kind === 'clay') return '';
  const many = (n: number, what: string) => (n === 0 ? [] : [`${inWords(n)}${NBSP}${what}${n === 1 ? '' : 's'}`]);
  const parts = [...many(materials.length, 'other material'), ...many(labels.filter((l) => l.shown).length, 'label')];
  return parts.length === 0 ? '' : ` with ${parts.join(' and ')}`;
}

/** How the picture is exposed where that is neither automatic nor the default, and the light that looks white. */
export function exposurePhrase({ exposure, finish: { white } }: Pick<Brief, 'exposure' | 'finish'>): string | null {
  const atDefault = 'metered' in exposure || !differs(exposure, BRIEF_DEFAULTS.exposure);
  const exposed = atDefault
    ? null
    : 'ev100' in exposure
      ? `exposed for ${exposure.ev100.toFixed(1)}${NBSP}EV`
      : `exposed at f/${exposure.f_number}, ${shutterText(exposure.shutter_s)}, ISO${NBSP}${exposure.iso}`;
  const balanced = white ? `white at ${kelvinText(white.kelvin)}` : null;
  return exposed && balanced ? `${exposed}, ${balanced}` : (exposed ?? balanced);
}

// More adjustments than these are counted, not named.
const NAMED_ADJUSTMENTS = 2;

/** What the finish does beyond the default: "brightened by 0.4 EV, with more contrast"; null when nothing. */
export function finishPhrase({ exposure_ev, lamps, masks, tone, color, lens, surface, table }: Finish): string | null {
  const more = (value: number, what: string) => (value === 0 ? [] : [`with ${value > 0 ? 'more' : 'less'} ${what}`]);
  const some = (value: number, what: string) => (value === 0 ? [] : [`with ${what}`]);
  const words = [
    ...(exposure_ev === 0
      ? []
      : [`${exposure_ev > 0 ? 'brightened' : 'darkened'} by ${Math.abs(exposure_ev).toFixed(1)}${NBSP}EV`]),
    ...lamps.map(({ group, on, dim_ev, warmth_mired }) =>
      !on
        ? `${small(group)} off afterwards`
        : dim_ev !== 0
          ? `${small(group)} ${dim_ev < 0 ? 'dimmed' : 'raised'} to ${percentOf(dim_ev)}`
          : `${small(group)} ${warmth_mired > 0 ? 'warmed' : 'cooled'}`
    ),
    ...(masks.length === 0 ? [] : [`with ${inWords(masks.length)}${NBSP}mask${masks.length === 1 ? '' : 's'}`]),
    ...(tone.curve === 'photographic' ? [] : [`in ${tone.curve} tones`]),
    ...more(tone.contrast, 'contrast'),
    ...(tone.highlights === 0 ? [] : [`with highlights ${tone.highlights < 0 ? 'held' : 'lifted'}`]),
    ...(tone.shadows === 0 ? [] : [`with shadows ${tone.shadows > 0 ? 'lifted' : 'deepened'}`]),
    ...(tone.black === 0 && tone.white === 100 ? [] : ['with black and white points set']),
    ...(color.saturation === -1 ? ['in black and white'] : more(color.saturation, 'colour')),
    ...more(color.vibrance, 'vibrance'),
    ...(color.filter !== null && color.filter_strength > 0 ? ['through a filter'] : []),
    ...some(color.bleach, 'bleach bypass'),
    ...(table && table.amount > 0 ? [`with the table “${table.name}”`] : []),
    ...some(lens.glow, 'glow'),
    ...some(lens.vignette_ev, 'vignette'),
    ...some(lens.streaks + lens.ghosts, 'lens flare'),
    ...some(surface.sharpen, 'sharpening'),
    ...(surface.texture === 'none' ? [] : [`with ${surface.texture} texture`])
  ];
  if (words.length === 0) return null;
  const named = words.length > NAMED_ADJUSTMENTS + 1 ? words.slice(0, NAMED_ADJUSTMENTS) : words;
  const rest = words.length - named.length;
  return [...named, ...(rest > 0 ? [`${inWords(rest)}${NBSP}adjustments more`] : [])].join(', ');
}

const shutterText = (seconds: number) =>
  seconds < 0.3 ? `1/${Math.round(1 / seconds)}${NBSP}s` : `${Math.round(seconds * 10) / 10}${NBSP}s`;

const differs = (a: unknown, b: unknown) => canonicalJson(a) !== canonicalJson(b);

export interface SentenceContext {
  /** Name of the picture. */
  name: string;
  /** The brief of the proof on the stage, or null when there is none: then nothing counts as changed. */
  shown: Brief | null;
  nameOfCaptured: (file: string) => string;
  /** Focal length of the viewpoint, with named cameras looked up. */
  focalMm: number;
  projection: 'perspective' | 'parallel' | 'panorama';
  /** Groups of the model's lamps. */
  lampGroups: readonly string[];
}

const LENS_PHRASES: Readonly<Partial<Record<SentenceContext['projection'], string>>> = {
  parallel: 'in parallel projection',
  panorama: 'all around'
};

/** The sentence up to the quality, without what it costs. */
export function composeSentence(brief: Brief, context: SentenceContext): SentencePart[] {
  const changed = changedWords(brief, context.shown);
  const word = (text: string, names: Word): SentencePart => ({
    word: text,
    panel: PANEL_OF[names],
    changed: changed.has(names)
  });
  const ground = groundPhrase(brief.ground);
  const groundWords: SentencePart[] = ground ? [{ text: ' on a ' }, word(ground, 'ground')] : [];
  const posed = posePhrase(brief);
  const behind = behindPhrase(brief);
  const lamps = lampWords(brief, context);
  const exposed = exposurePhrase(brief);
  const finished = finishPhrase(brief.finish);
  const lens = LENS_PHRASES[context.projection] ?? `${Math.round(context.focalMm)}${NBSP}mm lens`;
  return [
    { text: '“' },
    word(context.name, 'viewpoint'),
    { text: context.projection === 'perspective' ? '”, seen with a ' : '”, seen ' },
    word(lens, 'lens'),
    ...(posed ? [{ text: ', with ' }, word(posed, 'pose')] : []),
    { text: ', lit by ' },
    word(surroundingsPhrase(brief.surroundings, context.nameOfCaptured), 'surroundings'),
    ...groundWords,
    ...lamps,
    { text: ', ' },
    word(lookPhrase(brief.look) + wornPhrase(brief), 'look'),
    ...(exposed ? [{ text: ', ' }, word(exposed, 'exposure')] : []),
    ...(behind ? [{ text: ', in front of ' }, word(behind, 'background')] : []),
    ...(finished ? [{ text: ', ' }, word(finished, 'finish')] : []),
    ...sizeWords(brief, changed.has('size')),
    { text: ', at ' },
    word(QUALITY_STEPS[brief.quality.step].name, 'quality'),
    { text: ' quality' }
  ];
}

/** The panels that no word of the sentence opens, and whether what they edit changed since the proof on the stage. */
export function restingPanels(
  sentence: readonly SentencePart[],
  brief: Brief,
  shown: Brief | null
): { panel: PanelKey; changed: boolean }[] {
  const named = new Set(sentence.flatMap((part) => ('panel' in part ? [part.panel] : [])));
  const changed = new Set([...changedWords(brief, shown)].map((word) => PANEL_OF[word]));
  return BRIEF_PANELS.filter((panel) => !named.has(panel)).map((panel) => ({ panel, changed: changed.has(panel) }));
}

/** What the finish puts behind the model; null where the surroundings are seen, or a studio's paper is. */
function behindPhrase({ finish: { background }, surroundings, ground }: Brief): string | null {
  if (surroundings.kind === 'studio' && ground.kind === 'none') return null;
  switch (background.kind) {
    case 'own':
    case 'clear':
      return null;
    case 'plain':
      return 'plain grey';
    case 'graded':
      return 'a gradient';
    case 'paper':
      return 'paper';
    case 'picture':
      return 'a picture';
  }
}

// More than these are counted, not named.
const NAMED_LAMPS = 3;

/** The lamps that are on, each a word; or the one that is seen alone, or that none is on. */
function lampWords({ lamps }: Brief, { lampGroups, shown }: SentenceContext): SentencePart[] {
  if (lampGroups.length === 0) return [];
  const word = (text: string, now: unknown, before: unknown): SentencePart => ({
    word: text,
    panel: 'lamps',
    changed: shown !== null && differs(now, before)
  });
  if (lamps.only !== null) return [{ text: ', ' }, word(`${lamps.only} alone`, lamps, shown?.lamps)];
  const lit = lampGroups.map((group) => settingOf(lamps, group)).filter((s) => s.on);
  if (lit.length === 0) return [{ text: ', ' }, word('lamps off', lamps, shown?.lamps)];
  const named = lit.length > NAMED_LAMPS ? lit.slice(0, NAMED_LAMPS - 1) : lit;
  const words = named.map((s) =>
    word(
      `${small(s.group)}${s.dim_ev === 0 ? '' : ` at ${percentOf(s.dim_ev)}`}`,
      s,
      shown && settingOf(shown.lamps, s.group)
    )
  );
  if (lit.length > named.length) words.push(word(`${lit.length - named.length} more lamps`, lamps, shown?.lamps));
  return words.flatMap((w, i) => [{ text: i > 0 && i === words.length - 1 ? ' and ' : ', ' }, w]);
}

const small = (name: string) => name.replace(/^\p{Lu}(?=\p{Ll})/u, (c) => c.toLowerCase());

/** The words of the sentence that name what changed since the proof on the stage. */
const changedWords = (brief: Brief, shown: Brief | null): ReadonlySet<Word> =>
  new Set(shown ? briefChanges(brief, shown).map(({ word }) => word) : []);

/** How many words of the sentence changed since the proof on the stage. */
export const countChanges = (brief: Brief, shown: Brief): number => changedWords(brief, shown).size;

/** 46 s, 10 min 48 s, 1 h 20 min. */
export function duration(seconds: number): string {
  const s = Math.max(0, Math.round(seconds));
  if (s < 60) return `${s}${NBSP}s`;
  if (s < 3600)
    return s < 900 && s % 60 ? `${Math.floor(s / 60)}${NBSP}min ${s % 60}${NBSP}s` : `${Math.round(s / 60)}${NBSP}min`;
  const minutes = Math.round(s / 60);
  return minutes % 60 ? `${Math.floor(minutes / 60)}${NBSP}h ${minutes % 60}${NBSP}min` : `${minutes / 60}${NBSP}h`;
}

/** A forecast is rounded to what it can know: about 40 s, 11 min, 2 h. */
export function about(seconds: number): string {
  if (seconds < 10) return `${Math.max(1, Math.round(seconds))}${NBSP}s`;
  if (seconds < 60) return `${Math.round(seconds / 5) * 5}${NBSP}s`;
  if (seconds < 3600) return `${Math.round(seconds / 60)}${NBSP}min`;
  return duration(Math.round(seconds / 600) * 600);
}
