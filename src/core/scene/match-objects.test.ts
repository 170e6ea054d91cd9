import { describe, expect, it } from 'vitest';
import { createRandom } from '../sampling/random';
import { matchObjects, type ModelObject } from './match-objects';

const random = createRandom(7);
const STOREYS = ['Ground floor', 'First floor', 'Attic'];
/** A generated building of 200 objects, some of which share a name and a shape. */
const building: ModelObject[] = Array.from({ length: 200 }, (_, i) => {
  const kind = ['Wall', 'Window', 'Chair', 'Beam'][i % 4]!;
  const name = kind === 'Chair' ? 'Chair' : `${kind} ${i}`;
  return {
    name,
    path: `${STOREYS[i % 3]} / ${name}`,
    shape: kind === 'Chair' ? 'chair' : `${kind} ${Math.floor(random() * 1e9)}`,
    place: `${i}`
  };
});
const nothing = { moved: [], changed: [], renamed: [], paths: [], added: [], removed: [] };

describe('two revisions of a model', () => {
  it('that are the same have no difference, in whatever order they are written', () => {
    expect(matchObjects(building, [...building].reverse())).toEqual({ same: 200, ...nothing });
  });
  it('tell what was moved, renamed, changed, added and removed', () => {
    const next = building.map((o) => ({ ...o }));
    next[0]!.place = 'elsewhere';
    Object.assign(next[1]!, { name: 'Pane', path: 'Attic / Pane' });
    next[4]!.shape = 'another wall';
    // to another storey under its old name
    const annexe = `Annexe / ${next[7]!.name}`;
    Object.assign(next[7]!, { path: annexe });
    next.splice(8, 1);
    next.push({ name: 'Lamp', path: 'Attic / Lamp', shape: 'lamp', place: 'new' });
    expect(matchObjects(building, next)).toEqual({
      same: 196,
      moved: [building[0]!.path],
      renamed: [{ from: building[1]!.path, to: 'Attic / Pane' }],
      paths: [
        { from: building[7]!.path, to: annexe },
        { from: building[1]!.path, to: 'Attic / Pane' }
      ],
      changed: [building[4]!.path],
      added: ['Attic / Lamp'],
      removed: [building[8]!.path]
    });
  });
  it('keep those apart that share a name and a shape: the one that was moved is told', () => {
    const next = building.map((o) => ({ ...o }));
    next[2]!.place = 'by the window';
    expect(matchObjects(building, next)).toEqual({ same: 199, ...nothing, moved: [building[2]!.path] });
  });
  it('follow numbers that another object of the name shifts', () => {
    const leg = (n: number, place: string): ModelObject => ({
      name: 'Leg',
      path: n === 1 ? 'Table / Leg' : `Table / Leg (${n})`,
      shape: 'leg',
      place
    });
    const matched = matchObjects([leg(1, 'left'), leg(2, 'right')], [leg(1, 'new'), leg(2, 'left'), leg(3, 'right')]);
    expect(matched).toMatchObject({ same: 2, added: ['Table / Leg'] });
    expect(matched.paths).toEqual([
      { from: 'Table / Leg', to: 'Table / Leg (2)' },
      { from: 'Table / Leg (2)', to: 'Table / Leg (3)' }
    ]);
  });
  it('tell a split object and merged ones as added and removed', () => {
    const [first, second, ...rest] = building;
    const split = [
      { ...first!, name: 'Wall 0 a', path: 'Ground floor / Wall 0 a', shape: 'a' },
      { ...first!, name: 'Wall 0 b', path: 'Ground floor / Wall 0 b', shape: 'b' },
      second!,
      ...rest
    ];
    expect(matchObjects(building, split)).toMatchObject({
      same: 199,
      added: ['Ground floor / Wall 0 a', 'Ground floor / Wall 0 b'],
      removed: [first!.path]
    });
    expect(matchObjects(split, building)).toMatchObject({ same: 199, added: [first!.path], removed: { length: 2 } });
  });
});
