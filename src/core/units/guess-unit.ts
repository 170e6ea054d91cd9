/** Which unit a model was drawn in, by its size: a guess to begin from, never a decision. */
import { type LengthUnit, METRES_PER_UNIT } from './units';

// What designers draw is mostly larger than a ring and smaller than a site of 500 m (common practice, no source).
const MIN_M = 0.015;
const MAX_M = 500;
const BY_HABIT: readonly LengthUnit[] = ['m', 'mm', 'cm', 'in', 'ft'];

/** Whether a length in a unit is one that is mostly drawn. */
export function isPlausible(length: number, unit: LengthUnit): boolean {
  const metres = length * METRES_PER_UNIT[unit];
  return metres >= MIN_M && metres <= MAX_M;
}

/** `largest`: the model's largest extent in its own unit; `stated`: the unit that its format states. */
export function guessUnit(largest: number, stated: LengthUnit | null): LengthUnit {
  const first = stated === null ? [] : [stated];
  return [...first, ...BY_HABIT].find((unit) => isPlausible(largest, unit)) ?? stated ?? 'm';
}
