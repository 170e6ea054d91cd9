import { describe, expect, it } from 'vitest';
import { cameraView } from './viewpoint';

describe('a camera of the model', () => {
  const camera = {
    name: 'Entrance',
    position_m: [0, 1, 5] as [number, number, number],
    target_m: [0, 1, 0] as [number, number, number],
    up: [0, 1, 0] as [number, number, number],
    projection: 'perspective' as const,
    focal_length_mm: 30,
    height_m: null
  };
  it('shows the whole frame that it was composed for on a narrower sheet, and stays as it is on others', () => {
    expect(cameraView({ ...camera, aspect: 16 / 9 }, Math.SQRT2).focal_length_mm).toBeCloseTo(
      (30 * Math.SQRT2) / (16 / 9),
      3
    );
    expect(cameraView({ ...camera, aspect: 1 }, Math.SQRT2).focal_length_mm).toBe(30);
    expect(cameraView({ ...camera, aspect: null }, 0.7).focal_length_mm).toBe(30);
    expect(cameraView(camera, 0.7)).not.toHaveProperty('name');
  });
});
