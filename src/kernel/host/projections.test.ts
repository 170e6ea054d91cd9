/** Cameras on a level, panoramas and sections: where the kernel sees a point is where the geometry says. */
import { describe, expect, it } from 'vitest';
import {
  dark,
  even,
  glowing,
  makeScene,
  matte,
  quad,
  renderScene,
  sphere,
  viewFrom
} from '../../../tests/support/scenes';
import { createCameraFrame, cropFrame, placeInPicture, rayThrough } from '../../core/camera/lens';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { proofPixels } from '../../core/output/size';
import { add, dot, scale, subtract, type Vec3 } from '../../core/math/vec3';

const WIDTH = 48;
const HEIGHT = 32;

/** Where a small lamp at a point is seen, in shares of the picture; the kernel's, from the brightness of its pixels. */
function seenAt(view: FreeViewpoint, point: Vec3, width = WIDTH): { x: number; y: number } {
  const size = Math.hypot(...subtract(point, view.position_m)) * 0.02;
  const { pixels } = renderScene(
    makeScene([sphere(point, size, { ...glowing(1), twoSided: true }, false, 12, 24)]),
    view,
    {
      width,
      height: HEIGHT,
      samples: 64,
      light: dark,
      bounces: 1
    }
  );
  const all = pixels.reduce((sum, p) => sum + p[0], 0);
  const mean = (of: (i: number) => number) => pixels.reduce((sum, p, i) => sum + p[0] * of(i), 0) / all;
  return { x: mean((i) => ((i % width) + 0.5) / width), y: mean((i) => (Math.floor(i / width) + 0.5) / HEIGHT) };
}
const PIXEL = 1 / HEIGHT;

describe('straight verticals', () => {
  const view = viewFrom([3, 1.6, 20], [0, 9, 0], { upright: true, focal_length_mm: 20 });
  const frame = createCameraFrame(view, WIDTH / HEIGHT)!;
  it('keep every upright edge upright, and the target in the middle', () => {
    expect(placeInPicture(frame, view.target_m)).toMatchObject({ x: 0.5, y: 0.5 });
    for (const [x, z] of [
      [-4, 2],
      [5, -3],
      [0, 0]
    ] as const) {
      const [foot, top] = [placeInPicture(frame, [x, 0, z])!, placeInPicture(frame, [x, 18, z])!];
      expect(Math.abs(foot.x - top.x)).toBeLessThan(1e-9);
    }
    // tilted, they lean
    const tilted = createCameraFrame({ ...view, upright: false }, 1.5)!;
    expect(Math.abs(placeInPicture(tilted, [5, 0, 0])!.x - placeInPicture(tilted, [5, 18, 0])!.x)).toBeGreaterThan(
      0.03
    );
  });
  it('shift the lens by the height of the target over its distance, in sensors: f tan(slope)', () => {
    const slope = 7.4 / Math.hypot(3, 20);
    expect((frame.shift[1] * frame.halfHeight * 20) / 24).toBeCloseTo((20 * slope) / 24, 9);
    // a wall that faces the camera is not drawn together: equal heights are equally high
    const facing = createCameraFrame(viewFrom([0, 1.6, 20], [0, 9, 0], { upright: true }), 1.5)!;
    const at = (y: number) => placeInPicture(facing, [2, y, 0])!.y;
    expect(at(0) - at(5)).toBeCloseTo(at(5) - at(10), 9);
  });
  it.each([[[0, 9, 0]], [[-3, 2, 1]], [[4, 15, 3]]] as [Vec3][])('show the kernel the point %j there', (point) => {
    const [seen, said] = [seenAt(view, point), placeInPicture(frame, point)!];
    expect(Math.abs(seen.x - said.x)).toBeLessThan(0.5 * PIXEL);
    expect(Math.abs(seen.y - said.y)).toBeLessThan(0.5 * PIXEL);
  });
  it('are cropped as the whole is, and looks almost straight up stay tilted', () => {
    const pixels = proofPixels({
      size: { width_px: 480, height_px: 320 },
      quality: { scale: 1 },
      patch: { x: 0.5, y: 0.25, width: 0.25, height: 0.5 },
      bleed_mm: 0
    });
    const [whole, patch] = [placeInPicture(frame, [2, 11, 1])!, placeInPicture(cropFrame(frame, pixels), [2, 11, 1])!];
    expect(patch.x).toBeCloseTo((whole.x - 0.5) / 0.25, 9);
    expect(patch.y).toBeCloseTo((whole.y - 0.25) / 0.5, 9);
    const up = createCameraFrame(viewFrom([0, 0, 1], [0, 9, 0], { upright: true }), 1)!;
    expect(up.shift).toEqual([0, 0]);
  });
});

describe('a panorama', () => {
  const view = viewFrom([1, 1.6, 2], [1, 4, -5], { projection: 'panorama' });
  it('goes once around where it is twice as wide as high: equirectangular, longitude and latitude', () => {
    const frame = createCameraFrame(view, 2)!;
    const towards = (longitude: number, latitude: number): Vec3 => {
      const [a, b] = [(longitude * Math.PI) / 180, (latitude * Math.PI) / 180];
      const way: Vec3 = [Math.sin(a) * Math.cos(b), Math.sin(b), -Math.cos(a) * Math.cos(b)];
      return add(view.position_m, scale(way, 7));
    };
    for (const [longitude, latitude] of [
      [0, 0],
      [90, 0],
      [-135, 30],
      [45, -60],
      [179, 80]
    ] as const) {
      const place = placeInPicture(frame, towards(longitude, latitude))!;
      expect(place.x).toBeCloseTo(0.5 + longitude / 360, 9);
      expect(place.y).toBeCloseTo(0.5 - latitude / 180, 9);
    }
  });
  it.each([[[1, 1.6, -5]], [[6, 3, 2]], [[-2, 0, 6]], [[3, 5, 5]]] as [Vec3][])(
    'shows the kernel the point %j there',
    (point) => {
      const frame = createCameraFrame(view, 2)!;
      const [seen, said] = [seenAt(view, point, 2 * HEIGHT), placeInPicture(frame, point)!];
      expect(Math.abs(seen.x - said.x)).toBeLessThan(0.7 * PIXEL);
      expect(Math.abs(seen.y - said.y)).toBeLessThan(0.7 * PIXEL);
    }
  );
  it('of an even sky is even', () => {
    const { pixels } = renderScene(makeScene([]), view, { width: 8, height: 4, samples: 4, light: even(0.5) });
    for (const p of pixels) expect(p[0]).toBeCloseTo(0.5, 5);
  });
});

describe('a ray through a place of the picture', () => {
  it.each([
    ['perspective', false],
    ['perspective', true],
    ['parallel', false],
    ['panorama', false]
  ] as const)('goes through what is seen there: %s, straight verticals %s', (projection, upright) => {
    const view = viewFrom([3, 1.6, 6], [0, 3, 0], { projection, upright, height_m: 6 });
    const frame = createCameraFrame(view, 1.5)!;
    for (const point of [
      [0, 3, 0],
      [1, 2, -1],
      [-1, 4, 1]
    ] as Vec3[]) {
      const { x, y } = placeInPicture(frame, point)!;
      const { origin, way } = rayThrough(frame, x, y);
      const from = subtract(point, origin);
      const beside = subtract(from, scale(way, dot(from, way)));
      expect(Math.hypot(...beside)).toBeLessThan(1e-9);
      expect(dot(from, way)).toBeGreaterThan(0);
    }
  });
});

describe('a section plane', () => {
  // a closed room of 2 m with a lamp in its middle
  const walls = (
    [
      [
        [-1, -1, 1],
        [1, -1, 1],
        [1, 1, 1],
        [-1, 1, 1]
      ],
      [
        [-1, -1, -1],
        [-1, 1, -1],
        [1, 1, -1],
        [1, -1, -1]
      ],
      [
        [-1, 1, -1],
        [-1, 1, 1],
        [1, 1, 1],
        [1, 1, -1]
      ],
      [
        [-1, -1, -1],
        [1, -1, -1],
        [1, -1, 1],
        [-1, -1, 1]
      ],
      [
        [1, -1, -1],
        [1, 1, -1],
        [1, 1, 1],
        [1, -1, 1]
      ],
      [
        [-1, -1, -1],
        [-1, -1, 1],
        [-1, 1, 1],
        [-1, 1, -1]
      ]
    ] as [Vec3, Vec3, Vec3, Vec3][]
  ).map(([a, b, c, d]) => quad(a, b, c, d, matte(0.5)));
  const room = makeScene([...walls, sphere([0, 0, 0], 0.2, { ...glowing(10), twoSided: true })]);
  const outside = viewFrom([0, 0, 8], [0, 0, 0], { projection: 'parallel', height_m: 1.9 });
  const seen = (section: { normal: Vec3; distance: number } | null, view = outside) =>
    renderScene(room, view, { width: 9, height: 9, samples: 64, light: even(0.3), bounces: 2, section }).pixels;
  it('lets the camera look in, and keeps the light as it was in the closed room', () => {
    const [closed, cut] = [seen(null), seen({ normal: [0, 0, 1], distance: 0.9 })];
    // outside it is the wall under an even sky
    expect(closed[40]![0]).toBeLessThan(0.3);
    expect(cut[40]![0]).toBeGreaterThan(9);
    // the back wall as the camera sees it that stands inside
    const inside = seen(null, viewFrom([0, 0, 0.9], [0, 0, 0], { projection: 'parallel', height_m: 1.9 }));
    for (const i of [10, 16, 64]) expect(Math.abs(cut[i]![0] / inside[i]![0] - 1)).toBeLessThan(0.15);
  });
  it('leaves alone what lies behind the camera’s side, and shows the surroundings where all is cut away', () => {
    expect(seen({ normal: [0, 0, -1], distance: 20 })[40]![0]).toBe(seen(null)[40]![0]);
    const gone = seen({ normal: [0, 0, 1], distance: -5 });
    for (const p of gone) expect(p[0]).toBeCloseTo(0.3, 5);
  });
});
