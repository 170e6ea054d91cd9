/**
 * From a viewpoint to the frame the kernel shoots through. Frame: world metres, right-handed, camera looks along
 * `forward`. The picture's height is the sensor's height; its width follows from the picture's proportion.
 */
import type { ProofPixels } from '../output/size';
import { cross, dot, length, normalize, scale, subtract, type Vec3 } from '../math/vec3';
import type { FreeViewpoint } from './viewpoint';

export interface CameraFrame {
  parallel: boolean;
  eye: Vec3;
  right: Vec3;
  up: Vec3;
  forward: Vec3;
  /** Of the image plane at distance 1, or in metres when parallel. */
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

/** The frame that shoots a rectangle of another's picture, pixel for pixel the same. */
export function cropFrame(
  frame: CameraFrame,
  { width, height, x, y, sheetWidth, sheetHeight }: ProofPixels
): CameraFrame {
  return {
    ...frame,
    halfWidth: (frame.halfWidth * width) / sheetWidth,
    halfHeight: (frame.halfHeight * height) / sheetHeight,
    shift: [(2 * x + width - sheetWidth) / width, (sheetHeight - 2 * y - height) / height]
  };
}

/** Where a point lies in the picture, whose corners are 0, 0 and 1, 1 from the upper left; null behind the camera. */
export function placeInPicture(
  { parallel, eye, right, up, forward, halfWidth, halfHeight, shift }: CameraFrame,
  point: Vec3
): { x: number; y: number } | null {
  const from = subtract(point, eye);
  const depth = dot(from, forward);
  if (!parallel && depth <= 1e-6) return null;
  const k = parallel ? 1 : 1 / depth;
  return {
    x: 0.5 + ((dot(from, right) * k) / halfWidth - shift[0]) / 2,
    y: 0.5 - ((dot(from, up) * k) / halfHeight - shift[1]) / 2
  };
}

/**
 * Diameter on the sensor of the image of a point at `distance`, all in the same unit. Thin lens, any optics text: A f
 * |s - s0| / (s (s0 - f)).
 */
export function circleOfConfusion(aperture: number, focal: number, focus: number, distance: number): number {
  return (aperture * focal * Math.abs(distance - focus)) / (distance * (focus - focal));
}
