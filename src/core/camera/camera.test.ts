import { describe, expect, it } from 'vitest';
import { frameWhole } from './frame-whole';
import { proofPixels } from '../output/size';
import { circleOfConfusion, createCameraFrame, cropFrame, placeInPicture } from './lens';

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
      const p = [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]].map(
        (v, k) => v - frame.eye[k]!
      );
      const along = (axis: readonly number[]) => p[0]! * axis[0]! + p[1]! * axis[1]! + p[2]! * axis[2]!;
      const depth = along(frame.forward);
      expect(depth).toBeGreaterThan(0);
      widest = Math.max(
        widest,
        Math.abs(along(frame.right)) / depth / frame.halfWidth,
        Math.abs(along(frame.up)) / depth / frame.halfHeight
      );
    }
    expect(widest).toBeLessThanOrEqual(1);
    expect(widest).toBeGreaterThan(0.85);
  });
  it('looks straight down without losing its frame, and nowhere is refused', () => {
    const down = createCameraFrame(
      { ...frameWhole([0, 0, 0], [1, 1, 1], 1, 35), position_m: [0, 5, 0], target_m: [0, 0, 0] },
      1
    )!;
    expect(Math.hypot(...down.right)).toBeCloseTo(1);
    expect(
      createCameraFrame({ ...frameWhole([0, 0, 0], [1, 1, 1], 1, 35), position_m: [1, 1, 1], target_m: [1, 1, 1] }, 1)
    ).toBeNull();
  });
  it.each(['perspective', 'parallel'] as const)(
    'shoots a rectangle of a picture, pixel for pixel where it lies in the whole: %s',
    (projection) => {
      const pixels = proofPixels({
        size: { width_px: 400, height_px: 300 },
        quality: { scale: 1 },
        patch: { x: 0.6, y: 0.1, width: 0.25, height: 0.3 },
        bleed_mm: 0
      });
      expect(pixels).toEqual({ width: 100, height: 90, x: 240, y: 30, sheetWidth: 400, sheetHeight: 300 });
      const whole = createCameraFrame(
        { ...frameWhole([-1, -1, -1], [1, 1, 1], 4 / 3, 35), projection, height_m: 3 },
        4 / 3
      )!;
      const patch = cropFrame(whole, pixels);
      for (const point of [
        [0.3, 0.5, 0.2],
        [-0.7, 0.1, 0.9],
        [0.9, -0.8, -1]
      ] as const) {
        const [a, b] = [placeInPicture(whole, point)!, placeInPicture(patch, point)!];
        expect(b.x * pixels.width + pixels.x).toBeCloseTo(a.x * 400, 6);
        expect(b.y * pixels.height + pixels.y).toBeCloseTo(a.y * 300, 6);
      }
    }
  );
  it('shoots beyond the trim for a bleed, with the trimmed sheet where it was', () => {
    // 3 mm at 254 ppi are 30 px
    const pixels = proofPixels({
      size: { width_mm: 40, height_mm: 30, ppi: 254 },
      quality: { scale: 1 },
      patch: null,
      bleed_mm: 3
    });
    expect(pixels).toEqual({ width: 460, height: 360, x: -30, y: -30, sheetWidth: 400, sheetHeight: 300 });
    const whole = createCameraFrame(frameWhole([-1, -1, -1], [1, 1, 1], 4 / 3, 35), 4 / 3)!;
    const [a, b] = [
      placeInPicture(whole, [0.3, 0.5, 0.2])!,
      placeInPicture(cropFrame(whole, pixels), [0.3, 0.5, 0.2])!
    ];
    expect(b.x * 460 - 30).toBeCloseTo(a.x * 400, 6);
    expect(b.y * 360 - 30).toBeCloseTo(a.y * 300, 6);
  });
  it('circle of confusion: none in focus, A f / (s0 - f) at infinity (thin lens)', () => {
    expect(circleOfConfusion(0.02, 0.05, 2, 2)).toBe(0);
    expect(circleOfConfusion(0.02, 0.05, 2, 1e9)).toBeCloseTo((0.02 * 0.05) / 1.95, 8);
  });
  it('knows where a point lies in the picture: the target in its middle, the frame’s corners at its corners, nothing from behind', () => {
    const view = {
      position_m: [1, 2, 5] as [number, number, number],
      target_m: [1, 2, 0] as [number, number, number],
      up: [0, 1, 0] as [number, number, number],
      projection: 'perspective' as const,
      upright: false,
      focal_length_mm: 24,
      sensor_height_mm: 24,
      f_number: null,
      focus_m: null,
      height_m: null
    };
    const frame = createCameraFrame(view, 1.5)!;
    expect(placeInPicture(frame, [1, 2, 0])).toEqual({ x: 0.5, y: 0.5 });
    // a lens as long as the sensor is high sees as high as it is far: at 4 m from 0 to 4 m, six across
    const corner = placeInPicture(frame, [4, 4, 1])!;
    expect(corner.x).toBeCloseTo(1, 9);
    expect(corner.y).toBeCloseTo(0, 9);
    expect(placeInPicture(frame, [1, 2, 6])).toBeNull();
    const parallel = createCameraFrame({ ...view, projection: 'parallel', height_m: 2 }, 1)!;
    expect(placeInPicture(parallel, [1, 3, -100])!.y).toBeCloseTo(0, 9);
  });
});
