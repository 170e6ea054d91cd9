/**
 * Briefs of earlier versions as briefs of this one. A version changes the names or the meaning of fields; a new field
 * needs none, because what a brief does not say is at its default.
 */
import { BRIEF_VERSION } from './fields/brief-fields';

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

function renamed(value: unknown, names: Readonly<Record<string, string>>): unknown {
  if (!isObject(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, v]) => [Object.hasOwn(names, key) ? names[key]! : key, v])
  );
}

const QUALITY_1 = {
  least: 'min_samples',
  diffuse: 'diffuse_bounces',
  gloss: 'specular_bounces',
  glass: 'transmission_bounces',
  passes: 'transparent_bounces',
  glow: 'emissive_lights',
  aids: 'aovs'
} as const;

/** Version 1 had names of its own for what the field calls otherwise. */
function fromVersion1(brief: Json): Json {
  const { surroundings, quality } = brief;
  const around = renamed(surroundings, { heaps: 'cumulus' });
  return {
    ...brief,
    ...('surroundings' in brief
      ? { surroundings: isObject(around) && around.kind === 'even' ? { ...around, kind: 'uniform' } : around }
      : {}),
    ...('quality' in brief ? { quality: renamed(quality, QUALITY_1) } : {})
  };
}

/** The step from each version to the next. */
const STEPS: Readonly<Record<number, (brief: Json) => Json>> = { 1: fromVersion1 };

/** The versions that are read. */
export const READ_VERSIONS = [...Object.keys(STEPS).map(Number), BRIEF_VERSION];

/**
 * A brief, or a part of one, in this version. `version`: that it was written in. What is no object, or of a version that
 * is not known, stays as it is.
 */
export function migrateBrief(brief: unknown, version: unknown): unknown {
  if (!isObject(brief) || typeof version !== 'number') return brief;
  let now = brief;
  for (let v = version; v < BRIEF_VERSION; v++) {
    const step = STEPS[v];
    if (!step) return brief;
    now = step(now);
  }
  return 'version' in brief ? { ...now, version: BRIEF_VERSION } : now;
}
