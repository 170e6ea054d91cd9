/** A viewpoint that shows a whole box from the front left, slightly above, filling the frame. Metres, +Y up. */
import { add, cross, dot, normalize, scale, subtract, type Vec3 } from '../math/vec3';
import type { FreeViewpoint } from './viewpoint';

const MARGIN = 1.08;
export const SENSOR_HEIGHT_MM = 24;

/** `from`: direction from which to look, towards the camera; default front left. */
export function frameWhole(
  min: Vec3,
  max: Vec3,
  aspect: number,
  focalMm: number,
  from: Vec3 = [-0.55, 0.32, 1]
): FreeViewpoint {
  const middle = scale(add(min, max), 0.5);
  const back = normalize(from);
  const right = normalize(cross(Math.abs(back[1]) > 0.999 ? [0, 0, -1] : [0, 1, 0], back));
  const up = cross(back, right);
  const halfHeight = SENSOR_HEIGHT_MM / (2 * focalMm);
  const halfWidth = halfHeight * aspect;
  // each corner must lie inside the frame: how far back must the eye stand for that?
  let distance = 0;
  for (let i = 0; i < 8; i++) {
    const corner = subtract([i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]], middle);
    const near = dot(corner, back);
    distance = Math.max(
      distance,
      near + (Math.abs(dot(corner, right)) / halfWidth) * MARGIN,
      near + (Math.abs(dot(corner, up)) / halfHeight) * MARGIN
    );
  }
  const eye = add(middle, scale(back, Math.max(distance, 1e-4)));
  return {
    position_m: [...eye],
    target_m: [...middle],
    up: [0, 1, 0],
    projection: 'perspective',
    upright: false,
    focal_length_mm: focalMm,
    sensor_height_mm: SENSOR_HEIGHT_MM,
    f_number: null,
    focus_m: null,
    height_m: null
  };
}
