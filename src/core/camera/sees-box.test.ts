import { describe, expect, it } from 'vitest';
import { viewFrom } from '../../../tests/support/scenes';
import type { Vec3 } from '../math/vec3';
import { createCameraFrame } from './lens';
import { seesBox } from './sees-box';

const frame = createCameraFrame(viewFrom([0, 0, 5], [0, 0, 0]), 1.5)!;
const box = (at: Vec3, half = 0.5) => ({
  min_m: at.map((v) => v - half) as unknown as Vec3,
  max_m: at.map((v) => v + half) as unknown as Vec3
});

describe('a camera', () => {
  it('sees what lies before it, in its frame or across it', () => {
    expect(seesBox(frame, box([0, 0, 0]))).toBe(true);
    expect(seesBox(frame, box([0, 0, -1000], 900))).toBe(true);
    expect(seesBox(frame, box([0, 0, 5], 0.1))).toBe(true);
  });
  it('does not see what lies behind it or beside its frame', () => {
    expect(seesBox(frame, box([0, 0, 8]))).toBe(false);
    expect(seesBox(frame, box([40, 0, 0]))).toBe(false);
    expect(seesBox(frame, box([0, -40, 0]))).toBe(false);
  });
});
