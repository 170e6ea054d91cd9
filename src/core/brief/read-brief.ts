/** A brief as it was kept, with what has come to briefs since at its default. */
import { BRIEF_DEFAULTS, type Brief, CLAY_DEFAULTS, SURROUNDINGS_DEFAULTS, type Surroundings } from './brief';

export function readBrief(json: string): Brief {
  const kept = JSON.parse(json) as Brief;
  return {
    ...BRIEF_DEFAULTS,
    ...kept,
    surroundings: readSurroundings(kept.surroundings),
    look: kept.look.kind === 'clay' ? { ...CLAY_DEFAULTS, ...kept.look } : kept.look,
    seen: { ...BRIEF_DEFAULTS.seen, ...kept.seen },
    quality: { ...BRIEF_DEFAULTS.quality, ...kept.quality },
    lamps: readLamps(kept.lamps),
    finish: { ...BRIEF_DEFAULTS.finish, ...kept.finish }
  };
}

export const readSurroundings = (kept: Surroundings): Surroundings =>
  ({ ...SURROUNDINGS_DEFAULTS[kept.kind], ...kept }) as Surroundings;

export function readLamps(kept: Brief['lamps'] | undefined): Brief['lamps'] {
  const lamps = { ...BRIEF_DEFAULTS.lamps, ...kept };
  return { ...lamps, groups: lamps.groups.map((g) => ({ ...g, photometry: g.photometry ?? null })) };
}
