/** The range of a number of the brief, for controls and for sentences. */
import { BRIEF } from './fields/brief-fields';
import { numberField } from './fields/walk';

/** `path`: "quality.samples"; the kind of surroundings, background and the like is part of it: "surroundings.sky.sun_ev". */
export function limitsOf(path: string): { min: number; max: number } {
  const { min, max } = numberField(BRIEF, path);
  return { min, max };
}
