/**
 * What is kept of a brief under a name: its surroundings, or a cue, which is the whole of its light. A cue says which lamps are on and how
 * strong; which lamps there are is the picture's own, so those added since stay when it is taken.
 */
import type { Brief, Surroundings } from './brief';
import { canonicalJson } from './brief';
import { readLamps, readSurroundings } from './read-brief';

export interface KeptPart {
  surroundings: Surroundings;
  lamps?: Pick<Brief['lamps'], 'groups' | 'only'>;
  exposure?: Brief['exposure'];
}

export type KeptKind = 'surroundings' | 'cue';

export function partOf({ surroundings, lamps: { groups, only }, exposure }: Brief, kind: KeptKind): KeptPart {
  return kind === 'surroundings' ? { surroundings } : { surroundings, lamps: { groups, only }, exposure };
}

/** What a brief becomes that takes a part. */
export function takePart({ surroundings, lamps, exposure }: KeptPart, brief: Brief): Partial<Brief> {
  return { surroundings, ...(lamps ? { lamps: { ...brief.lamps, ...lamps } } : {}), ...(exposure ? { exposure } : {}) };
}

export const standsAt = (part: KeptPart, brief: Brief): boolean => canonicalJson(part) === canonicalJson(partOf(brief, part.lamps ? 'cue' : 'surroundings'));

/** As it was kept, with what has come to briefs since at its default. */
export function readPart(json: string): KeptPart {
  const kept = JSON.parse(json) as KeptPart;
  const part: KeptPart = { surroundings: readSurroundings(kept.surroundings) };
  if (kept.exposure) part.exposure = kept.exposure;
  if (kept.lamps) {
    const { groups, only } = readLamps(kept.lamps as Brief['lamps']);
    part.lamps = { groups, only };
  }
  return part;
}
