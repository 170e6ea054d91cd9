import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS } from '../brief/brief';
import { followName, followPart, followParts, rulesWithoutPart } from './follow-part';

const paths = [
  { from: 'House / Door', to: 'Villa / Door' },
  { from: 'House / Roof / Ridge', to: 'Villa / Roof / Ridge' },
  { from: 'Leg', to: 'Leg (2)' }
];
const there = new Set(['Villa', 'Villa / Door', 'Villa / Roof', 'Villa / Roof / Ridge', 'Leg', 'Leg (2)']);

describe('a posed part in the next revision', () => {
  it('follows its object, and a group what lay within it', () => {
    expect(followPart('House / Door', paths, there)).toBe('Villa / Door');
    expect(followPart('Leg', paths, there)).toBe('Leg (2)');
    expect(followPart('House', paths, there)).toBe('Villa');
    expect(followPart('House / Roof', paths, there)).toBe('Villa / Roof');
  });
  it('stays where it is still there, and keeps its path when it is gone', () => {
    expect(followPart('', paths, there)).toBe('');
    expect(followPart('Villa', paths, there)).toBe('Villa');
    expect(followPart('Garage', paths, there)).toBe('Garage');
  });
});

describe('a brief that follows its parts', () => {
  const rule = (part: string | null) => ({
    material: 'oak',
    part,
    becomes: 'paint-white',
    change: null,
    texture: null
  });
  const brief = {
    ...BRIEF_DEFAULTS,
    pose: [{ part: 'House / Door', seen: 'never' as const, move_m: [0, 0, 0], turn_deg: [0, 0, 0] }],
    materials: [rule(null), rule('House / Door'), rule('Garage')]
  } as unknown as typeof BRIEF_DEFAULTS;
  it('keeps its poses and the materials of single parts, and changes nothing else', () => {
    const next = followParts(brief, (part) => part.replace('House', 'Villa'));
    expect(next.pose[0]!.part).toBe('Villa / Door');
    expect(next.materials.map(({ part }) => part)).toEqual([null, 'Villa / Door', 'Garage']);
    expect({ ...next, pose: brief.pose, materials: brief.materials }).toEqual(brief);
  });
  it('lists the rules of parts that are not there, and none of the whole model', () => {
    const there = new Set(['House', 'House / Door']);
    expect(rulesWithoutPart([...brief.materials, rule('')], there).map(({ part }) => part)).toEqual(['Garage']);
  });
  it('gives a mask the new name of its part, where it is sure which', () => {
    const paths = [
      { from: 'Chair', to: 'Armchair' },
      { from: 'Left / Leg', to: 'Left / Front leg' },
      { from: 'Right / Leg', to: 'Right / Back leg' }
    ];
    expect(followName('Chair', paths)).toBe('Armchair');
    expect(followName('Leg', paths)).toBe('Leg');
    expect(followName('Table', paths)).toBe('Table');
  });
});
