import { describe, expect, it } from 'vitest';
import { makeScene, matte, quad } from '../../../tests/support/scenes';
import { dot } from '../../core/math/vec3';
import { MOST_PORTALS } from '../assembly/layout';
import { collectPortals } from './portals';

const clear = { transmission: 1, roughness: 0 };
const pane = (x: number, material = clear) => quad([x, 0, 0], [x + 2, 0, 0], [x + 2, 3, 0], [x, 3, 0], material);

describe('portals', () => {
  it('takes the two triangles of a pane as one, with a frame that gives shares of its edges', () => {
    const found = collectPortals(makeScene([pane(0), quad([0, 0, 5], [1, 0, 5], [1, 1, 5], [0, 1, 5], matte(0.5)), pane(4)]));
    expect(found.map((p) => [p.shape, p.area])).toEqual([[2, 6], [2, 6]]);
    for (const p of found) {
      expect([dot(p.a, p.alongA), dot(p.b, p.alongA), dot(p.a, p.alongB), dot(p.b, p.alongB)].map((v) => Math.round(v * 1e9) / 1e9 + 0)).toEqual([1, 0, 0, 1]);
      expect(Math.abs(dot(p.normal, [0, 0, 1]))).toBeCloseTo(1, 12);
    }
  });
  it('keeps a triangle that has no other half, and drops one without area', () => {
    const single = { ...pane(0), indices: [0, 1, 2] };
    const sliver = { ...pane(9), positions: [9, 0, 0, 10, 0, 0, 11, 0, 0, 12, 0, 0] };
    expect(collectPortals(makeScene([single, sliver])).map((p) => [p.shape, p.area])).toEqual([[1, 3]]);
  });
  it('takes no frosted, solid or opaque sheet', () => {
    expect(collectPortals(makeScene([pane(0, { ...clear, roughness: 0.2 }), pane(4, { ...clear, solid: true } as typeof clear), pane(8, { ...clear, transmission: 0 })]))).toEqual([]);
  });
  it('has none when there are too many to be windows', () => {
    expect(collectPortals(makeScene(Array.from({ length: MOST_PORTALS + 1 }, (_, i) => pane(i * 3))))).toEqual([]);
  });
});
