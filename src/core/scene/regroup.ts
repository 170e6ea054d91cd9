/**
 * Groups of lamps other than by their names: by the part of the file that they belong to, or by the storey that they
 * hang in.
 */
import type { Regrouped } from './dim-lamps';
import { lampGroup, type LampPlace } from './lamp-groups';

export const GROUPINGS = ['name', 'part', 'storey'] as const;
export type Grouping = (typeof GROUPINGS)[number];

// No numbers: a group's name must not end in one.
const STOREYS = [
  'Lowest storey',
  'Second storey',
  'Third storey',
  'Fourth storey',
  'Fifth storey',
  'Sixth storey',
  'Seventh storey',
  'Eighth storey'
];
// Lamps of one storey hang no farther apart in height, from one to the next (common practice, no source).
const STOREY_GAP_M = 1.6;

/** Empty for names: that is how lamps are grouped by themselves. */
export function regroup(lamps: readonly LampPlace[], by: Grouping): Regrouped[] {
  if (by === 'name') return [];
  const groupOf = by === 'part' ? partOf : storeyOf(lamps);
  return lamps.flatMap((lamp) => {
    const group = groupOf(lamp);
    return group === null || group === lampGroup(lamp.name) ? [] : [{ lamp: lamp.name, group }];
  });
}

/** The innermost named thing that a lamp is part of. */
const partOf = ({ within }: LampPlace): string | null => (within.length > 0 ? lampGroup(within.at(-1)!) : null);

function storeyOf(lamps: readonly LampPlace[]): (lamp: LampPlace) => string | null {
  const heights = [...new Set(lamps.map((l) => l.at_m[1]))].sort((a, b) => a - b);
  const floors: number[] = [];
  heights.forEach((h, i) => {
    if (i === 0 || h - heights[i - 1]! > STOREY_GAP_M) floors.push(h);
  });
  return ({ at_m }) =>
    STOREYS[
      Math.min(
        STOREYS.length - 1,
        floors.findLastIndex((floor) => at_m[1] >= floor)
      )
    ]!;
}

/** Which of these a choice is, if any. */
export const groupingOf = (lamps: readonly LampPlace[], regrouped: readonly Regrouped[]): Grouping | null =>
  GROUPINGS.find((by) => JSON.stringify(sorted(regroup(lamps, by))) === JSON.stringify(sorted(regrouped))) ?? null;

const sorted = (list: readonly Regrouped[]) => list.map(({ lamp, group }) => `${lamp} ${group}`).sort();

/** Some lamps in a group of one's own; it takes them out of those that they were in. */
export const gathered = (regrouped: readonly Regrouped[], names: readonly string[], group: string): Regrouped[] => [
  ...regrouped.filter((r) => !names.includes(r.lamp)),
  ...names.map((lamp) => ({ lamp, group }))
];
