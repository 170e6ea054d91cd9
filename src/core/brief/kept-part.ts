/**
 * What is kept of a brief under a name: its surroundings; a cue, which is the whole of its light; a destination, which
 * is its size and where it is seen; a step of quality; what a material becomes. A cue says which lamps are on and how
 * strong; which lamps there are is the picture's own, so those added since stay when it is taken.
 */
import { BRIEF_VERSION, type Brief, canonicalJson } from './brief';
import { migrateBrief } from './migrate';
import { readLamps, readMaterials, readQuality, readSeen, readSurroundings } from './read-brief';

export type KeptPart = Partial<Pick<Brief, 'surroundings' | 'exposure' | 'size' | 'seen' | 'quality'>> & {
  /** One rule: what a material becomes, whatever it is called in the file. */
  materials?: Brief['materials'];
  lamps?: Pick<Brief['lamps'], 'groups' | 'only'>;
};

export const KEPT_KINDS = ['surroundings', 'cue', 'destination', 'step', 'material'] as const;
export type KeptKind = (typeof KEPT_KINDS)[number];

/** Of a material the first rule. */
export function partOf(
  { surroundings, lamps: { groups, only }, exposure, size, seen, quality, materials }: Brief,
  kind: KeptKind
): KeptPart {
  if (kind === 'surroundings') return { surroundings };
  if (kind === 'cue') return { surroundings, lamps: { groups, only }, exposure };
  if (kind === 'material') return { materials: materials.slice(0, 1) };
  return kind === 'destination' ? { size, seen } : { quality };
}

/** What a brief becomes that takes a part. */
export const takePart = ({ lamps, ...part }: KeptPart, brief: Brief): Partial<Brief> => ({
  ...part,
  ...(lamps ? { lamps: { ...brief.lamps, ...lamps } } : {})
});

export const standsAt = (part: KeptPart, brief: Brief, kind: KeptKind): boolean =>
  canonicalJson(part) === canonicalJson(partOf(brief, kind));

/** As it is kept: with the version of the brief that it is a part of. */
export const writePart = (part: KeptPart): string => JSON.stringify({ version: BRIEF_VERSION, ...part });

/** As it was kept, in this version and with what has come to briefs since at its default. */
export function readPart(json: string): KeptPart {
  const { version = 1, ...kept } = JSON.parse(json) as { version?: number } & KeptPart;
  const part = migrateBrief(kept, version) as KeptPart;
  if (part.surroundings) part.surroundings = readSurroundings(part.surroundings);
  if (part.quality) part.quality = readQuality(part.quality);
  if (part.seen) part.seen = readSeen(part.seen);
  if (part.materials) part.materials = readMaterials(part.materials);
  if (part.lamps) {
    const { groups, only } = readLamps(part.lamps);
    part.lamps = { groups, only };
  }
  return part;
}
