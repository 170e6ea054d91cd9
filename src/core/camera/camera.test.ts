import { describe, expect, it } from 'vitest';
import { frameWhole } from './frame-whole';
import { circleOfConfusion, createCameraFrame } from './lens';

describe('camera', () => {
  it('a 35 mm lens on a sensor 24 mm high sees 37.85 degrees upright (arithmetic)', () => {
    const frame = createCameraFrame(frameWhole([-1, -1, -1], [1, 1, 1], 1.5, 35), 1.5)!;
    expect((2 * Math.atan(frame.halfHeight) * 180) / Math.PI).toBeCloseTo(37.85, 2);
    expect(frame.halfWidth / frame.halfHeight).toBeCloseTo(1.5);
  });
  it('fills the frame: all corners inside, one of them near the edge', () => {
    const min = [-3, 0, -1] as const;
    const max = [2, 4, 5] as const;
    const frame = createCameraFrame(frameWhole(min, max, 1.4, 28), 1.4)!;
    let widest = 0;
    for (let i = 0; i < 8; i++) {
      const p = [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]].map((v, k) => v - frame.eye[k]!);
      const along = (axis: readonly number[]) => p[0]! * axis[0]! + p[1]! * axis[1]! + p[2]! * axis[2]!;
      const depth = along(frame.forward);
      expect(depth).toBeGreaterThan(0);
      widest = Math.max(widest, Math.abs(along(frame.right)) / depth / frame.halfWidth, Math.abs(along(frame.up)) / depth / frame.halfHeight);
    }
    expect(widest).toBeLessThanOrEqual(1);
    expect(widest).toBeGreaterThan(0.85);
  });
  it('looks straight down without losing its frame, and nowhere is refused', () => {
    const down = createCameraFrame({ ...frameWhole([0, 0, 0], [1, 1, 1], 1, 35), position_m: [0, 5, 0], target_m: [0, 0, 0] }, 1)!;
    expect(Math.hypot(...down.right)).toBeCloseTo(1);
    expect(createCameraFrame({ ...frameWhole([0, 0, 0], [1, 1, 1], 1, 35), position_m: [1, 1, 1], target_m: [1, 1, 1] }, 1)).toBeNull();
  });
  it('circle of confusion: none in focus, A f / (s0 - f) at infinity (thin lens)', () => {
    expect(circleOfConfusion(0.02, 0.05, 2, 2)).toBe(0);
    expect(circleOfConfusion(0.02, 0.05, 2, 1e9)).toBeCloseTo((0.02 * 0.05) / 1.95, 8);
  });
});
