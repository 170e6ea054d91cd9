import { describe, expect, it } from 'vitest';
import { kernelModule, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { buildImportanceGrid } from '../../core/lights/captured/importance';
import { dot } from '../../core/math/vec3';
import { MAX_PORTALS } from '../assembly/layout';
import type { OpenFrame } from '../../core/scene/opening';
import { openIndoors } from './indoors';
import { collectPortals } from './portals';
import { compileScene } from './rig';

const clear = { transmission: 1, roughness: 0 };
const pane = (x: number, material = clear) => quad([x, 0, 0], [x + 2, 0, 0], [x + 2, 3, 0], [x, 3, 0], material);

describe('portals', () => {
  it('takes the two triangles of a pane as one, with a frame that gives shares of its edges', () => {
    const found = collectPortals(
      makeScene([pane(0), quad([0, 0, 5], [1, 0, 5], [1, 1, 5], [0, 1, 5], matte(0.5)), pane(4)])
    );
    expect(found.map((p) => [p.shape, p.area])).toEqual([
      [2, 6],
      [2, 6]
    ]);
    for (const p of found) {
      expect(
        [dot(p.a, p.alongA), dot(p.b, p.alongA), dot(p.a, p.alongB), dot(p.b, p.alongB)].map(
          (v) => Math.round(v * 1e9) / 1e9 + 0
        )
      ).toEqual([1, 0, 0, 1]);
      expect(Math.abs(dot(p.normal, [0, 0, 1]))).toBeCloseTo(1, 12);
    }
  });
  it('keeps a triangle that has no other half, and drops one without area', () => {
    const single = { ...pane(0), indices: [0, 1, 2] };
    const sliver = { ...pane(9), positions: [9, 0, 0, 10, 0, 0, 11, 0, 0, 12, 0, 0] };
    expect(collectPortals(makeScene([single, sliver])).map((p) => [p.shape, p.area])).toEqual([[1, 3]]);
  });
  it('takes no frosted, solid or opaque sheet', () => {
    expect(
      collectPortals(
        makeScene([
          pane(0, { ...clear, roughness: 0.2 }),
          pane(4, { ...clear, solid: true } as typeof clear),
          pane(8, { ...clear, transmission: 0 })
        ])
      )
    ).toEqual([]);
  });
  it('takes openings that are stated, before panes', () => {
    const opening = { middle_m: [0, 1.5, -4] as const, normal: [0, 0, 1] as const, width_m: 2, height_m: 3 };
    const found = collectPortals({ ...makeScene([pane(0)]), openings: [opening] });
    expect(found.map((p) => [p.shape, Math.round(p.area * 1e6) / 1e6])).toEqual([
      [2, 6],
      [2, 6]
    ]);
    expect(
      collectPortals({ ...makeScene(Array.from({ length: MAX_PORTALS }, (_, i) => pane(i * 3))), openings: [opening] })
    ).toHaveLength(1);
  });
  it('make a room with a hole in its wall clean sooner, not brighter', () => {
    // a box of 4 m with a hole of 0.8 m in the wall at z = -2, seen from within
    const wall = matte(0.6);
    const [w, h] = [2, 0.4];
    const room = makeScene([
      quad([-w, 0, w], [w, 0, w], [w, 0, -w], [-w, 0, -w], wall),
      quad([-w, 3, -w], [w, 3, -w], [w, 3, w], [-w, 3, w], wall),
      quad([-w, 0, w], [-w, 0, -w], [-w, 3, -w], [-w, 3, w], wall),
      quad([w, 0, -w], [w, 0, w], [w, 3, w], [w, 3, -w], wall),
      quad([w, 0, w], [-w, 0, w], [-w, 3, w], [w, 3, w], wall),
      quad([-w, 0, -w], [w, 0, -w], [w, 1.5 - h, -w], [-w, 1.5 - h, -w], wall),
      quad([-w, 1.5 + h, -w], [w, 1.5 + h, -w], [w, 3, -w], [-w, 3, -w], wall),
      quad([-w, 1.5 - h, -w], [-h, 1.5 - h, -w], [-h, 1.5 + h, -w], [-w, 1.5 + h, -w], wall),
      quad([h, 1.5 - h, -w], [w, 1.5 - h, -w], [w, 1.5 + h, -w], [h, 1.5 + h, -w], wall)
    ]);
    const opening = { middle_m: [0, 1.5, -w] as const, normal: [0, 0, 1] as const, width_m: 2 * h, height_m: 2 * h };
    const pixels = new Float32Array(64 * 32 * 3).fill(1000);
    const light = {
      even: null,
      sun: null,
      image: { pixels, width: 64, height: 32, scale: 1, rotation: 0, grid: buildImportanceGrid(pixels, 64, 32) }
    };
    const seen = (openings: OpenFrame[]) =>
      renderScene({ ...room, openings }, viewFrom([1.5, 1.5, 1.5], [-1, 1, 0], { focal_length_mm: 20 }), {
        samples: 256,
        bounces: 6,
        light,
        indoors: openings.length > 0,
        white: 400
      });
    const [without, with_] = [seen([]), seen([opening])];
    expect(with_.mean[1] / without.mean[1]).toBeGreaterThan(0.96);
    expect(with_.mean[1] / without.mean[1]).toBeLessThan(1.04);
    expect(with_.grain).toBeLessThan(0.7 * without.grain);
    // the same hole as six unequal panes, which fill one block of four and half another
    const panes = [-0.4, -0.1, 0.3].flatMap((x0, i) =>
      [-0.4, 0.25].map((y0, j) => {
        const [x1, y1] = [[-0.1, 0.3, 0.4][i]!, [0.25, 0.4][j]!];
        return {
          middle_m: [(x0 + x1) / 2, 1.5 + (y0 + y1) / 2, -w] as const,
          normal: [0, 0, 1] as const,
          width_m: x1 - x0,
          height_m: y1 - y0
        };
      })
    );
    const parted = seen(panes);
    expect(Math.abs(parted.mean[1] / with_.mean[1] - 1)).toBeLessThan(0.02);
    expect(parted.grain).toBeLessThan(1.1 * with_.grain);
    const packed = compileScene({ ...room, openings: [opening] }, kernelModule);
    const question = openIndoors(packed, kernelModule);
    expect(question([1.5, 1.5, 1.5], [opening])).toBe(true);
    expect(question([1.5, 1.5, 9], [opening])).toBe(false);
    expect(openIndoors(compileScene(room, kernelModule), kernelModule)([0, 1.5, -1.4], [])).toBe(false);
  });
  it('has none when there are too many to be windows', () => {
    expect(collectPortals(makeScene(Array.from({ length: MAX_PORTALS + 1 }, (_, i) => pane(i * 3))))).toEqual([]);
  });
});
