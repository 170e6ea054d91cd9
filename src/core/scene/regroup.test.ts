import { describe, expect, it } from 'vitest';
import type { LampPlace } from './lamp-groups';
import { gathered, groupingOf, regroup } from './regroup';

const lamp = (name: string, height: number, ...within: string[]): LampPlace => ({
  name,
  kind: 'lamps',
  at_m: [0, height, 0],
  within
});
const lamps = [
  lamp('Downlight 1', 2.5, 'House', 'Kitchen'),
  lamp('Downlight 2', 2.4, 'House', 'Hall'),
  lamp('Downlight 3', 5.3, 'House', 'Bedroom.001'),
  lamp('Table lamp', 0.8, 'House', 'Hall'),
  lamp('Street lamp', 3.9)
];

describe('lamps grouped', () => {
  it('by their names need nothing said', () => expect(regroup(lamps, 'name')).toEqual([]));
  it('by the part of the file that they belong to, those of none by their names', () =>
    expect(regroup(lamps, 'part')).toEqual([
      { lamp: 'Downlight 1', group: 'Kitchen' },
      { lamp: 'Downlight 2', group: 'Hall' },
      { lamp: 'Downlight 3', group: 'Bedroom' },
      { lamp: 'Table lamp', group: 'Hall' }
    ]));
  it('by storey where a floor lies between their heights', () => {
    const by = new Map(
      regroup([lamp('a', 0.8), lamp('b', 2.3), lamp('c', 5.2), lamp('d', 5.9), lamp('e', 8.4)], 'storey').map((r) => [
        r.lamp,
        r.group
      ])
    );
    expect([...by.values()]).toEqual([
      'Lowest storey',
      'Lowest storey',
      'Second storey',
      'Second storey',
      'Third storey'
    ]);
  });
  it('are known again, and a group of one’s own is none of these', () => {
    expect(groupingOf(lamps, regroup(lamps, 'part').reverse())).toBe('part');
    const own = gathered(regroup(lamps, 'part'), ['Table lamp', 'Downlight 1'], 'Warm ones');
    expect(own.filter((r) => r.group === 'Warm ones').map((r) => r.lamp)).toEqual(['Table lamp', 'Downlight 1']);
    expect(own).toHaveLength(4);
    expect(groupingOf(lamps, own)).toBeNull();
  });
});
