/** A brief as it was kept, with what has come to briefs since at its default. */
import { BRIEF_DEFAULTS, type Brief, CLAY_DEFAULTS, SURROUNDINGS_DEFAULTS, type Surroundings } from './brief';

export function readBrief(json: string): Brief {
  const kept = JSON.parse(json) as Brief;
  return {
    ...BRIEF_DEFAULTS,
    ...kept,
    surroundings: { ...SURROUNDINGS_DEFAULTS[kept.surroundings.kind], ...kept.surroundings } as Surroundings,
    look: kept.look.kind === 'clay' ? { ...CLAY_DEFAULTS, ...kept.look } : kept.look,
    quality: { ...BRIEF_DEFAULTS.quality, ...kept.quality },
    lamps: { ...BRIEF_DEFAULTS.lamps, ...kept.lamps },
    finish: { ...BRIEF_DEFAULTS.finish, ...kept.finish }
  };
}
