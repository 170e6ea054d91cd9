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
const nothing = { moved: [], changed: [], renamed: [], added: [], removed: [] };

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
    Object.assign(next[7]!, { path: `Annexe / ${next[7]!.name}` });
    next.splice(8, 1);
    next.push({ name: 'Lamp', path: 'Attic / Lamp', shape: 'lamp', place: 'new' });
    expect(matchObjects(building, next)).toEqual({
      same: 196,
      moved: [building[0]!.path],
      renamed: [{ from: building[1]!.path, to: 'Attic / Pane' }],
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
