/** Views as in drawings: parallel, along the axes of the model, the whole of it in the frame. Metres, +Y up. */
import { add, cross, dot, normalize, scale, subtract, type Vec3 } from '../math/vec3';
import { SENSOR_HEIGHT_MM } from './frame-whole';
import { createCameraFrame } from './lens';
import type { FreeViewpoint } from './viewpoint';

export const DRAWN_VIEWS = ['plan', 'front', 'back', 'left', 'right', 'isometric'] as const;
export type DrawnView = (typeof DRAWN_VIEWS)[number];

/** From the model to the camera, and which way is up. Isometric: all three axes equally short. */
const FROM: Record<DrawnView, { back: Vec3; up: Vec3 }> = {
  plan: { back: [0, 1, 0], up: [0, 0, -1] },
  front: { back: [0, 0, 1], up: [0, 1, 0] },
  back: { back: [0, 0, -1], up: [0, 1, 0] },
  left: { back: [-1, 0, 0], up: [0, 1, 0] },
  right: { back: [1, 0, 0], up: [0, 1, 0] },
  isometric: { back: [1, 1, 1], up: [0, 1, 0] }
};
const MARGIN = 1.06;

export function drawnView(view: DrawnView, min: Vec3, max: Vec3, aspect: number, focalMm: number): FreeViewpoint {
  const { back: from, up: upward } = FROM[view];
  const back = normalize(from);
  const right = normalize(cross(upward, back));
  const up = cross(back, right);
  const middle = scale(add(min, max), 0.5);
  const extent = subtract(max, min);
  const across = (axis: Vec3) =>
    Math.abs(axis[0]) * extent[0] + Math.abs(axis[1]) * extent[1] + Math.abs(axis[2]) * extent[2];
  const height = Math.max(across(up), across(right) / aspect, 1e-4) * MARGIN;
  // outside the model, so that nothing lies behind the camera
  const distance = across(back) / 2 + Math.max(height, across(right));
  const rounded = (v: Vec3): [number, number, number] => v.map((x) => Math.round(x * 1e5) / 1e5) as never;
  return {
    position_m: rounded(add(middle, scale(back, distance))),
    target_m: rounded(middle),
    up: [...upward],
    projection: 'parallel',
    upright: false,
    focal_length_mm: focalMm,
    sensor_height_mm: SENSOR_HEIGHT_MM,
    f_number: null,
    focus_m: null,
    height_m: Math.round(height * 1e5) / 1e5
  };
}

/** How far the camera leans to its right, degrees; 0 where its up is the world's. */
export function rollOf({ position_m, target_m, up }: Pick<FreeViewpoint, 'position_m' | 'target_m' | 'up'>): number {
  const axes = levelAxes(position_m, target_m);
  return axes ? (Math.atan2(dot(up, axes.right), dot(up, axes.up)) * 180) / Math.PI : 0;
}

/** The view with the camera leant to its right; as it is where it looks straight up or down. */
export function withRoll<V extends Pick<FreeViewpoint, 'position_m' | 'target_m' | 'up'>>(
  view: V,
  roll_deg: number
): V {
  const axes = levelAxes(view.position_m, view.target_m);
  if (!axes) return view;
  if (roll_deg === 0) return { ...view, up: [0, 1, 0] };
  const [c, s] = [Math.cos((roll_deg * Math.PI) / 180), Math.sin((roll_deg * Math.PI) / 180)];
  const up = add(scale(axes.up, c), scale(axes.right, s));
  return { ...view, up: up.map((v) => Math.round(v * 1e5) / 1e5) as never };
}

function levelAxes(position: Vec3, target: Vec3): { right: Vec3; up: Vec3 } | null {
  const forward = normalize(subtract(target, position));
  if (Math.hypot(forward[0], forward[2]) < 1e-6) return null;
  const right = normalize(cross(forward, [0, 1, 0]));
  return { right, up: cross(right, forward) };
}

/** Angles that a lens sees, degrees. Sensor and focal length in the same unit. */
export function fieldOfView(focal: number, sensorHeight: number, aspect: number): { across: number; upright: number } {
  const angle = (size: number) => (2 * Math.atan(size / (2 * focal)) * 180) / Math.PI;
  return { across: angle(sensorHeight * aspect), upright: angle(sensorHeight) };
}

/** Circles of this share of the sensor's diagonal still look like points (common practice, no source). */
const POINT_SHARE = 1 / 1500;
const WIDTH_OVER_HEIGHT = 1.5;

/** Depths between which a view looks sharp, m, with that of its focus; null where everything is sharp. */
export function sharpDepths(view: FreeViewpoint): { near: number; focus: number; far: number } | null {
  const frame = createCameraFrame(view, 1);
  if (!frame || view.f_number === null || frame.lensRadius === 0) return null;
  const { focus } = frame;
  const circle = (Math.hypot(1, WIDTH_OVER_HEIGHT) * view.sensor_height_mm * POINT_SHARE) / 1000;
  return { focus, ...sharpZone(view.focal_length_mm / 1000, view.f_number, focus, circle) };
}

/** Where all is sharp enough: thin lens, from the circle of confusion that is allowed. All in metres. */
export function sharpZone(
  focal: number,
  fNumber: number,
  focus: number,
  circle: number
): { near: number; far: number } {
  // hyperfocal distance, any optics text: f^2 / (N c) + f
  const hyperfocal = (focal * focal) / (fNumber * circle) + focal;
  const near = (focus * (hyperfocal - focal)) / (hyperfocal + focus - 2 * focal);
  const far = focus >= hyperfocal ? Number.POSITIVE_INFINITY : (focus * (hyperfocal - focal)) / (hyperfocal - focus);
  return { near, far };
}
