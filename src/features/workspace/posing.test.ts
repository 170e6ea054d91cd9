import { describe, expect, it } from 'vitest';
import type { ModelPart } from '../../core/scene/model-part';
import { createRandom } from '../../core/sampling/random';
import { partsAbove, treeRows } from './part-tree';
import { groupPieces, lostParts, newPiece, scattered, settingOfPart, withPart } from './posing';

const part = (path: string, depth: number): ModelPart => ({
  path,
  name: path.split(' / ').at(-1)!,
  depth,
  triangles: 1,
  objects: 1,
  materials: [],
  min_m: [0, 1, 0],
  max_m: [2, 3, 4]
});
const PARTS = [
  part('House', 0),
  part('House / Roof', 1),
  part('House / Roof / Ridge', 2),
  part('House / Door', 1),
  part('Site', 0)
];
const paths = (rows: { part: ModelPart }[]) => rows.map((row) => row.part.path);

describe('the tree of a model', () => {
  it('shows the outermost parts, and those within the opened ones', () => {
    expect(paths(treeRows(PARTS, new Set(), ''))).toEqual(['House', 'Site']);
    expect(paths(treeRows(PARTS, new Set(['House']), ''))).toEqual(['House', 'House / Roof', 'House / Door', 'Site']);
    // what is open within a closed part stays hidden
    expect(paths(treeRows(PARTS, new Set(['House / Roof']), ''))).toEqual(['House', 'Site']);
    expect(treeRows(PARTS, new Set(['House']), '').map((row) => row.opens)).toEqual([true, true, false, false]);
  });
  it('is searched by name, and opened to a part that is picked', () => {
    expect(paths(treeRows(PARTS, new Set(), 'd'))).toEqual(['House / Roof / Ridge', 'House / Door']);
    expect(partsAbove(PARTS, 'House / Roof / Ridge')).toEqual(['House', 'House / Roof']);
  });
});

describe('a pose', () => {
  it('turns about the middle of the foot, and is forgotten when it is as it came in', () => {
    const setting = settingOfPart([], 'House', PARTS[0]!);
    expect(setting.about_m).toEqual([1, 1, 2]);
    const pose = withPart([], { ...setting, move_m: [1, 0, 0] });
    expect(pose.length).toBe(1);
    expect(withPart(pose, setting)).toEqual([]);
  });
  it('knows the parts that the model no longer has', () => {
    const pose = ['', 'House', 'Garage'].map((path) => ({ ...settingOfPart([], path, PARTS[0]!), part: path }));
    expect(lostParts(pose, PARTS).map((p) => p.part)).toEqual(['Garage']);
  });
});

describe('pieces', () => {
  it('are listed by name and model, and scattered in many sizes and turns', () => {
    const grass = scattered(
      'grass-patch',
      'Grass',
      [
        [0, 0, 0],
        [1, 0, 0]
      ],
      createRandom(2)
    );
    expect(grass[0]!.turn_deg).not.toBe(grass[1]!.turn_deg);
    expect(grass.every((p) => p.scale > 0.8 && p.scale < 1.2)).toBe(true);
    expect(groupPieces([newPiece('chair', 'Chair', [0, 0, 0]), ...grass]).map((g) => g.at)).toEqual([[0], [1, 2]]);
  });
});
