/**
 * What costs time in a picture, from measurements of it: the same patches rendered with one thing less, with the same
 * random numbers, so that what differs is that thing alone. Nothing here is a rule; every figure is of this brief.
 */
import { capital, NBSP, wholeText } from '../brief/amounts';
import { type Brief, setAsideOf } from '../brief/brief';
import { settingOf } from '../scene/dim-lamps';
import { isAmong, sameGroup } from '../scene/lamp-groups';
import type { WeightOfGroup } from '../scene/set-aside';
import { type Pair, savedShare } from './saved-share';

/** One thing less. */
export type Saving =
  | { kind: 'bounces'; to: number }
  | { kind: 'layers' }
  | { kind: 'aovs' }
  | { kind: 'lamps'; group: string }
  | { kind: 'objects'; group: string; triangles: number }
  /** Matte, of its own colour; `covers`: share of the picture that shows it. */
  | { kind: 'material'; name: string; covers: number }
  /** Its slim copy in its place; `slim`: the triangles of that. */
  | { kind: 'slim'; group: string; triangles: number; slim: number }
  /** A captured image taken coarser: widths, px, and the memory that it spares. */
  | { kind: 'captured'; from: number; to: number; bytes: number };

export interface Cost {
  saving: Saving;
  /** Of patches with it and without: what tells the share of the time, for any goal. */
  pair: Pair;
  /** Standard error of the share, for the goal that it was measured with. */
  error: number;
  /**
   * How much the picture changes: root mean square over its pixels of the difference of displayed lightness, L*, grain
   * taken out.
   */
  changes: number;
  /** Where it changes most, in shares of the picture. */
  at: { x: number; y: number };
}

/** Those that have been measured, of so many steps. */
export interface CostsSoFar {
  costs: Cost[];
  steps: number;
}

/** What is tried on a brief. `groups`: of lamps that are on; `heaviest`: of objects. */
export function savingsOf(
  { quality }: Brief,
  groups: readonly string[],
  heaviest: readonly Pick<WeightOfGroup, 'group' | 'triangles' | 'slim'>[]
): Saving[] {
  const out: Saving[] = [8, 4].filter((to) => to < quality.bounces).map((to) => ({ kind: 'bounces', to }));
  if (quality.layers) out.push({ kind: 'layers' });
  if (quality.aovs) out.push({ kind: 'aovs' });
  for (const group of groups) out.push({ kind: 'lamps', group });
  for (const { group, triangles, slim = triangles } of heaviest) {
    if (isAmong(quality.aside, group)) continue;
    out.push({ kind: 'objects', group, triangles });
    if (slim < triangles && !isAmong(quality.slim, group)) out.push({ kind: 'slim', group, triangles, slim });
  }
  return out;
}

/** What of a brief changes when it is taken. */
export function takeSaving(saving: Saving, brief: Brief): Partial<Brief> {
  const { quality, lamps, surroundings } = brief;
  switch (saving.kind) {
    case 'bounces':
      return { quality: { ...quality, bounces: saving.to } };
    case 'layers':
      return { quality: { ...quality, layers: false } };
    case 'aovs':
      return { quality: { ...quality, aovs: false } };
    case 'lamps':
      return {
        lamps: {
          ...lamps,
          groups: [
            ...lamps.groups.filter((g) => !sameGroup(g.group, saving.group)),
            { ...settingOf(lamps, saving.group), on: false }
          ]
        }
      };
    case 'objects':
      return { quality: { ...quality, aside: [...quality.aside, saving.group] } };
    case 'material':
      return { quality: { ...quality, plain: [...quality.plain, saving.name] } };
    case 'slim':
      return { quality: { ...quality, slim: [...quality.slim, saving.group] } };
    case 'captured':
      return surroundings.kind === 'captured' ? { surroundings: { ...surroundings, most_px: saving.to } } : {};
  }
}

/** A brief to try a saving by: what quick looks alone leave out is left out of it. */
export function trySaving(saving: Saving, brief: Brief): Brief {
  const taken = { ...brief, ...takeSaving(saving, brief) };
  const quick = saving.kind === 'objects' || saving.kind === 'slim' || saving.kind === 'material';
  return quick && Object.keys(setAsideOf(taken)).length === 0
    ? { ...taken, quality: { ...taken.quality, step: 'study' } }
    : taken;
}

/**
 * What a patch was tried with that the brief is without, or the other way round: "with dark walnut plain"; null when
 * that is not how they differ.
 */
export function triedWith(patch: Brief, brief: Brief): string | null {
  const [tried, own] = [patch.quality, brief.quality];
  const more = (a: readonly string[], b: readonly string[]) => a.find((name) => !isAmong(b, name));
  const plain = more(tried.plain, own.plain);
  if (plain) return `with ${plain} plain`;
  const aside = more(tried.aside, own.aside);
  if (aside) return `without ${aside}`;
  const slim = more(tried.slim, own.slim);
  if (slim) return `with ${slim} simplified`;
  const off = patch.lamps.groups.find((g) => !g.on && settingOf(brief.lamps, g.group).on);
  if (off) return `with ${off.group} off`;
  if (tried.bounces < own.bounces) return `with ${tried.bounces} bounces`;
  if (own.layers && !tried.layers) return 'without each light’s share';
  if (own.aovs && !tried.aovs) return 'without masks and depth';
  const [image, whole] = [patch.surroundings, brief.surroundings];
  if (
    image.kind === 'captured' &&
    whole.kind === 'captured' &&
    image.most_px !== null &&
    image.most_px !== whole.most_px
  )
    return `with the image at ${wholeText(image.most_px)}${NBSP}px`;
  return null;
}

/** Px a side of the patch that a saving is tried on. */
export const TRY_PX = 320;

// Under this a saving is not worth a sentence.
const MIN_SAVED = 0.04;
// Nineteen of twenty measurements lie within so many standard errors.
const SURE = 2;
// A share that is surer than this is not measured further.
const MAX_OFF = 0.03;

/**
 * Share of a brief's time, 0 to 1, and how far it may be off; whether it is worth a sentence, and whether more turns
 * would tell more.
 */
export function saves({ pair, error }: Pick<Cost, 'pair' | 'error'>, { quality }: Pick<Brief, 'quality'>) {
  const share = savedShare(pair, quality);
  const off = SURE * error;
  return {
    share,
    off,
    said: share >= Math.max(MIN_SAVED, off),
    settled: off <= MAX_OFF || share + off < MIN_SAVED
  };
}

/**
 * Those that are worth a sentence, the most first; a coarser image is measured only where it spares memory worth a
 * word.
 */
export const worthSaying = (costs: readonly Cost[], brief: Brief): Cost[] =>
  costs
    .filter((c) => saves(c, brief).said || c.saving.kind === 'captured')
    .sort((a, b) => saves(b, brief).share - saves(a, brief).share);

/** Under this nothing is seen of a change, L*. */
export const MIN_CHANGE = 0.05;

export function costSentence({ saving, changes, ...measured }: Omit<Cost, 'at'>, brief: Brief): string {
  const { share, off, said } = saves(measured, brief);
  const time = `${Math.round(100 * share)}${NBSP}±${NBSP}${Math.max(1, Math.ceil(100 * off))}${NBSP}% of the time`;
  const change =
    changes < MIN_CHANGE ? 'changes nothing to see here' : `changes the picture by ${changes.toFixed(1)}${NBSP}L*`;
  switch (saving.kind) {
    case 'bounces':
      return (
        `Light that bounces more than ${saving.to} times takes ${time}; ${saving.to} bounces instead of ` +
        `${brief.quality.bounces} ${change.replace('changes', 'change')}.`
      );
    case 'layers':
      return `Keeping each light’s share for EXR takes ${time}.`;
    case 'aovs':
      return `Masks, depth and light passes for the EXR take ${time}.`;
    case 'lamps':
      return `${capital(saving.group)}: ${time}; switched off, that ${change}.`;
    case 'objects':
      return `${capital(saving.group)}, ${wholeText(saving.triangles)} triangles: ${time}; set aside in quick looks.`;
    case 'material':
      return `${capital(saving.name)}, ${Math.round(100 * saving.covers)}${NBSP}% of the picture: ${time}; made plain, that ${change}.`;
    case 'slim':
      return (
        `${capital(saving.group)} simplified to ${wholeText(saving.slim)} triangles instead of ` +
        `${wholeText(saving.triangles)} spares ${time} and ${change}.`
      );
    case 'captured':
      return (
        `The captured image of ${wholeText(saving.from)}${NBSP}px taken at ` +
        `${wholeText(saving.to)}${NBSP}px spares ${wholeText(saving.bytes / 1e6)}${NBSP}MB of ` +
        `memory${said ? ` and ${time}` : ''}; that ${change}.`
      );
  }
}

/** What the button says that takes it. */
export function savingAction(saving: Saving): string {
  switch (saving.kind) {
    case 'bounces':
      return `Take ${saving.to} bounces`;
    case 'lamps':
      return 'Switch it off';
    case 'objects':
      return 'Set it aside';
    case 'material':
      return 'Make it plain in quick looks';
    case 'slim':
      return 'Simplify it';
    case 'captured':
      return 'Take it coarser';
    case 'layers':
    case 'aovs':
      return 'Leave it out';
  }
}
