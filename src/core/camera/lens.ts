/**
 * From a viewpoint to the frame the kernel shoots through. Frame: world metres, right-handed, camera looks along
 * `forward`. The picture's height is the sensor's height; its width follows from the picture's proportion.
 */
import type { ProofPixels } from '../output/size';
import { add, cross, dot, length, normalize, scale, subtract, type Vec3 } from '../math/vec3';
import type { FreeViewpoint } from './viewpoint';

export interface CameraFrame {
  parallel: boolean;
  /** Equirectangular: places in the picture are angles. */
  panorama: boolean;
  eye: Vec3;
  right: Vec3;
  up: Vec3;
  forward: Vec3;
  /** Of the image plane at distance 1; in metres when parallel; radians of a panorama. */
  halfWidth: number;
  halfHeight: number;
  /** Of the middle of what is shot, right and up of the direction of the look, in half widths and half heights. */
  shift: readonly [x: number, y: number];
  lensRadius: number;
  focus: number;
}

/** Null when the viewpoint looks nowhere: position and target coincide. */
export function createCameraFrame(view: FreeViewpoint, aspect: number): CameraFrame | null {
  const way = subtract(view.target_m, view.position_m);
  const distance = length(way);
  if (!(distance > 1e-9)) return null;
  const panorama = view.projection === 'panorama';
  const level = panorama || (view.upright && view.projection === 'perspective') ? levelWay(way) : null;
  if (level) return levelFrame(view, aspect, way, level);
  const forward = scale(way, 1 / distance);
  let right = cross(forward, normalize(view.up));
  // looking straight along "up": any right will do, north stays up
  if (length(right) < 1e-6) right = cross(forward, Math.abs(dot(forward, [0, 0, 1])) > 0.9 ? [0, 1, 0] : [0, 0, -1]);
  right = normalize(right);
  const up = cross(right, forward);
  const parallel = view.projection === 'parallel';
  const halfHeight = parallel
    ? (view.height_m ?? (distance * view.sensor_height_mm) / view.focal_length_mm) / 2
    : view.sensor_height_mm / (2 * view.focal_length_mm);
  const lensRadius = parallel || view.f_number === null ? 0 : view.focal_length_mm / 1000 / (2 * view.f_number);
  return {
    parallel,
    panorama: false,
    eye: view.position_m,
    right,
    up,
    forward,
    halfWidth: halfHeight * aspect,
    halfHeight,
    shift: [0, 0],
    lensRadius,
    focus: view.focus_m ?? distance
  };
}

/** Looks steeper than this have no level camera: its lens would be shifted beyond what any has. Tangent of the slope. */
const STEEPEST = 3;

/** A look along the horizon, unit; null where it looks almost straight up or down. */
function levelWay([x, y, z]: Vec3): Vec3 | null {
  const flat = Math.hypot(x, z);
  return flat * STEEPEST < Math.abs(y) ? null : [x / flat, 0, z / flat];
}

/** A camera on a tripod: a panorama, or a perspective whose lens is shifted up or down to its target. */
function levelFrame(view: FreeViewpoint, aspect: number, way: Vec3, forward: Vec3): CameraFrame {
  const up: Vec3 = [0, 1, 0];
  const panorama = view.projection === 'panorama';
  const depth = dot(way, forward);
  // a sheet that is not twice as wide as high shows less than all
  const half = Math.min(Math.PI / 2, Math.PI / aspect);
  const halfHeight = panorama ? half : view.sensor_height_mm / (2 * view.focal_length_mm);
  return {
    parallel: false,
    panorama,
    eye: view.position_m,
    right: cross(forward, up),
    up,
    forward,
    halfWidth: halfHeight * aspect,
    halfHeight,
    shift: [0, panorama ? 0 : way[1] / depth / halfHeight],
    lensRadius: panorama || view.f_number === null ? 0 : view.focal_length_mm / 1000 / (2 * view.f_number),
    focus: view.focus_m ?? depth
  };
}

/** The frame that shoots a rectangle of another's picture, pixel for pixel the same. */
export function cropFrame(
  frame: CameraFrame,
  { width, height, x, y, sheetWidth, sheetHeight }: ProofPixels
): CameraFrame {
  return {
    ...frame,
    halfWidth: (frame.halfWidth * width) / sheetWidth,
    halfHeight: (frame.halfHeight * height) / sheetHeight,
    // a lens that is shifted already is shifted from there
    shift: [
      (2 * x + width - sheetWidth + frame.shift[0] * sheetWidth) / width,
      (sheetHeight - 2 * y - height + frame.shift[1] * sheetHeight) / height
    ]
  };
}

/** Where a point lies in the picture, whose corners are 0, 0 and 1, 1 from the upper left; null behind the camera. */
export function placeInPicture(
  { parallel, panorama, eye, right, up, forward, halfWidth, halfHeight, shift }: CameraFrame,
  point: Vec3
): { x: number; y: number } | null {
  const from = subtract(point, eye);
  if (panorama) {
    const across = Math.atan2(dot(from, right), dot(from, forward));
    const above = Math.asin(dot(from, up) / Math.max(length(from), 1e-12));
    return { x: 0.5 + (across / halfWidth - shift[0]) / 2, y: 0.5 - (above / halfHeight - shift[1]) / 2 };
  }
  const depth = dot(from, forward);
  if (!parallel && depth <= 1e-6) return null;
  const k = parallel ? 1 : 1 / depth;
  return {
    x: 0.5 + ((dot(from, right) * k) / halfWidth - shift[0]) / 2,
    y: 0.5 - ((dot(from, up) * k) / halfHeight - shift[1]) / 2
  };
}

/** The ray through a place of the picture, whose corners are 0, 0 and 1, 1 from the upper left; its way is a unit. */
export function rayThrough(
  { parallel, panorama, eye, right, up, forward, halfWidth, halfHeight, shift }: CameraFrame,
  x: number,
  y: number
): { origin: Vec3; way: Vec3 } {
  const across = (2 * x - 1 + shift[0]) * halfWidth;
  const above = (1 - 2 * y + shift[1]) * halfHeight;
  const beside: Vec3 = add(scale(right, across), scale(up, above));
  if (parallel) return { origin: add(eye, beside), way: forward };
  if (!panorama) return { origin: eye, way: normalize(add(forward, beside)) };
  const level = Math.cos(above);
  const way = add(scale(right, Math.sin(across) * level), scale(forward, Math.cos(across) * level));
  return { origin: eye, way: add(way, scale(up, Math.sin(above))) };
}

/**
 * Diameter on the sensor of the image of a point at `distance`, all in the same unit. Thin lens, any optics text: A f
 * |s - s0| / (s (s0 - f)).
 */
export function circleOfConfusion(aperture: number, focal: number, focus: number, distance: number): number {
  return (aperture * focal * Math.abs(distance - focus)) / (distance * (focus - focal));
}
