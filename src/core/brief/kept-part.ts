/**
 * What is kept of a brief under a name: its surroundings; a cue, which is the whole of its light; a destination, which
 * is its size and where it is seen; a step of quality. A cue says which lamps are on and how strong; which lamps there
 * are is the picture's own, so those added since stay when it is taken.
 */
import { BRIEF_DEFAULTS, type Brief, canonicalJson } from './brief';
import { readLamps, readSurroundings } from './read-brief';

export type KeptPart = Partial<Pick<Brief, 'surroundings' | 'exposure' | 'size' | 'seen' | 'quality'>> & {
  lamps?: Pick<Brief['lamps'], 'groups' | 'only'>;
};

export const KEPT_KINDS = ['surroundings', 'cue', 'destination', 'step'] as const;
export type KeptKind = (typeof KEPT_KINDS)[number];

export function partOf(
  { surroundings, lamps: { groups, only }, exposure, size, seen, quality }: Brief,
  kind: KeptKind
): KeptPart {
  if (kind === 'surroundings') return { surroundings };
  if (kind === 'cue') return { surroundings, lamps: { groups, only }, exposure };
  return kind === 'destination' ? { size, seen } : { quality };
}

/** What a brief becomes that takes a part. */
export const takePart = ({ lamps, ...part }: KeptPart, brief: Brief): Partial<Brief> => ({
  ...part,
  ...(lamps ? { lamps: { ...brief.lamps, ...lamps } } : {})
});

export const standsAt = (part: KeptPart, brief: Brief, kind: KeptKind): boolean =>
  canonicalJson(part) === canonicalJson(partOf(brief, kind));

/** As it was kept, with what has come to briefs since at its default. */
export function readPart(json: string): KeptPart {
  const part = JSON.parse(json) as KeptPart;
  if (part.surroundings) part.surroundings = readSurroundings(part.surroundings);
  if (part.quality) part.quality = { ...BRIEF_DEFAULTS.quality, ...part.quality };
  if (part.seen) part.seen = { ...BRIEF_DEFAULTS.seen, ...part.seen };
  if (part.lamps) {
    const { groups, only } = readLamps(part.lamps as Brief['lamps']);
    part.lamps = { groups, only };
  }
  return part;
}
