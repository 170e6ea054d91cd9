import { describe, expect, it } from 'vitest';
import { leadsThrough, openingAt, openingBetween, sidesOf } from './opening';

/** A box as two triangles a side, corners not shared between sides. */
function box(min: number[], max: number[]) {
  const positions: number[] = [];
  const indices: number[] = [];
  for (let axis = 0; axis < 3; axis++) {
    for (const end of [min, max]) {
      const first = positions.length / 3;
      for (const [u, v] of [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1]
      ] as const) {
        const p = [0, 0, 0];
        p[axis] = end[axis]!;
        p[(axis + 1) % 3] = u ? max[(axis + 1) % 3]! : min[(axis + 1) % 3]!;
        p[(axis + 2) % 3] = v ? max[(axis + 2) % 3]! : min[(axis + 2) % 3]!;
        positions.push(...p);
      }
      indices.push(first, first + 1, first + 2, first, first + 2, first + 3);
    }
  }
  return { positions, indices };
}

describe('the opening of a pane', () => {
  it('is the rectangle of the piece that hangs together, not of the mesh', () => {
    const left = box([0, 1, -0.01], [1.2, 2.5, 0.01]);
    const right = box([2, 1, -0.01], [3, 2, 0.01]);
    const positions = [...left.positions, ...right.positions];
    const indices = [...left.indices, ...right.indices.map((i) => i + left.positions.length / 3)];
    const found = openingAt(positions, indices, 3, [0, 0, 1]);
    expect(found.width_m).toBeCloseTo(1.2, 9);
    expect(found.height_m).toBeCloseTo(1.5, 9);
    expect(found.depth_m).toBeCloseTo(0.02, 9);
    for (const [k, v] of [0.6, 1.75, 0].entries()) expect(found.middle[k]).toBeCloseTo(v, 9);
    expect(openingAt(positions, indices, left.indices.length / 3 + 1, [0, 0, 1]).width_m).toBeCloseTo(1, 9);
  });
  it('is measured level and upright in a wall that stands askew', () => {
    const pane = box([0, 1, -0.01], [1.2, 2.5, 0.01]);
    const [c, s] = [Math.cos(0.7), Math.sin(0.7)];
    const turned = pane.positions.map((_, i, p) =>
      i % 3 === 0 ? c * p[i]! + s * p[i + 2]! : i % 3 === 2 ? c * p[i]! - s * p[i - 2]! : p[i]!
    );
    const found = openingAt(turned, pane.indices, 0, [s, 0, c]);
    expect(found.width_m).toBeCloseTo(1.2, 6);
    expect(found.height_m).toBeCloseTo(1.5, 6);
  });
});

describe('an opening between two corners', () => {
  const found = openingBetween([1, 0.9, -4], [2.2, 2.4, -4.02], [0, 0, 1])!;
  it('is the rectangle between them, in the plane of the first', () => {
    expect(found.middle_m.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([1.6, 1.65, -4]);
    expect([found.width_m, found.height_m].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([1.2, 1.5]);
    expect(openingBetween([2.2, 2.4, -4], [1, 0.9, -4], [0, 0, 1])).toMatchObject({
      width_m: found.width_m,
      height_m: found.height_m
    });
    expect(openingBetween([1, 0.9, -4], [1, 2.4, -4], [0, 0, 1])).toBeNull();
    const { corner, a, b } = sidesOf(found);
    expect([corner[0] + a[0] + b[0], corner[1] + a[1] + b[1]].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
      2.2, 2.4
    ]);
  });
  it('knows which looks lead through it', () => {
    expect(leadsThrough(found, [1.6, 1.65, 0], [0, 0, -1])).toBe(true);
    expect(leadsThrough(found, [1.6, 1.65, 0], [0, 0, 1])).toBe(false);
    expect(leadsThrough(found, [0.5, 1.65, 0], [0, 0, -1])).toBe(false);
    expect(leadsThrough(found, [0, 1.6, 0], [0.37, 0.02, -0.93])).toBe(true);
  });
});
