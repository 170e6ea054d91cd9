import { describe, expect, it } from 'vitest';
import type { Vec3 } from '../math/vec3';
import { DRAWN_VIEWS, drawnView, fieldOfView, rollOf, sharpZone, withRoll } from './drawn-views';
import { circleOfConfusion, createCameraFrame, placeInPicture } from './lens';

const MIN: Vec3 = [-2, 0, -1];
const MAX: Vec3 = [4, 3, 5];

describe('views as in drawings', () => {
  it.each(DRAWN_VIEWS)('%s shows the whole model and fills the frame in one direction', (name) => {
    const frame = createCameraFrame(drawnView(name, MIN, MAX, 1.4, 35), 1.4)!;
    const places = Array.from(
      { length: 8 },
      (_, i) => placeInPicture(frame, [(i & 1 ? MAX : MIN)[0], (i & 2 ? MAX : MIN)[1], (i & 4 ? MAX : MIN)[2]])!
    );
    const reach = Math.max(...places.flatMap(({ x, y }) => [Math.abs(x - 0.5), Math.abs(y - 0.5)]));
    expect(reach).toBeLessThan(0.5);
    expect(reach).toBeGreaterThan(0.46);
  });
  it('a plan has the back of the model above, a front what is left on the left, isometric axes of equal length', () => {
    const at = (name: (typeof DRAWN_VIEWS)[number], p: Vec3) =>
      placeInPicture(createCameraFrame(drawnView(name, MIN, MAX, 1, 35), 1)!, p)!;
    expect(at('plan', [1, 0, -1]).y).toBeLessThan(at('plan', [1, 0, 5]).y);
    expect(at('front', [-2, 1, 2]).x).toBeLessThan(at('front', [4, 1, 2]).x);
    expect(at('back', [-2, 1, 2]).x).toBeGreaterThan(at('back', [4, 1, 2]).x);
    const o = at('isometric', [1, 1, 2]);
    const lengths = (
      [
        [2, 1, 2],
        [1, 2, 2],
        [1, 1, 3]
      ] as Vec3[]
    ).map((p) => {
      const { x, y } = at('isometric', p);
      return Math.hypot(x - o.x, y - o.y);
    });
    expect(lengths[1]! / lengths[0]!).toBeCloseTo(1, 4);
    expect(lengths[2]! / lengths[0]!).toBeCloseTo(1, 4);
  });
});

describe('a camera that leans', () => {
  const view = { position_m: [0, 1, 5], target_m: [1, 2, 0], up: [0, 1, 0] } as {
    position_m: [number, number, number];
    target_m: [number, number, number];
    up: [number, number, number];
  };
  it('by what it was given, and not at all at nought', () => {
    for (const deg of [-30, 0, 12.5, 45]) expect(rollOf(withRoll(view, deg))).toBeCloseTo(deg, 2);
    expect(withRoll(withRoll(view, 20), 0).up).toEqual([0, 1, 0]);
    expect(withRoll({ ...view, target_m: [0, 0, 5] }, 10).up).toEqual([0, 1, 0]);
  });
});

describe('a lens', () => {
  it('of 50 mm on 36 by 24 mm sees 39.6 by 27.0 degrees (common practice)', () => {
    const { across, upright } = fieldOfView(50, 24, 1.5);
    expect(across).toBeCloseTo(39.6, 1);
    expect(upright).toBeCloseTo(27, 1);
  });
  it('is sharp enough where the circle of confusion is as large as is allowed (thin lens)', () => {
    const { near, far } = sharpZone(0.05, 2.8, 3, 3e-5);
    expect(circleOfConfusion(0.05 / 2.8, 0.05, 3, near)).toBeCloseTo(3e-5, 8);
    expect(circleOfConfusion(0.05 / 2.8, 0.05, 3, far)).toBeCloseTo(3e-5, 8);
    expect(sharpZone(0.024, 11, 5, 3e-5).far).toBe(Number.POSITIVE_INFINITY);
  });
});
