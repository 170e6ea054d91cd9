/** Whether something of a box can be in a picture; what stands in front of it does not count. */
import { dot, subtract, type Vec3 } from '../math/vec3';
import { type CameraFrame, placeInPicture } from './lens';

export interface Box {
  min_m: Vec3;
  max_m: Vec3;
}

export function seesBox(frame: CameraFrame, { min_m, max_m }: Box): boolean {
  // all around is seen
  if (frame.panorama) return true;
  if (frame.eye.every((v, k) => v >= min_m[k]! && v <= max_m[k]!)) return true;
  const corners = Array.from(
    { length: 8 },
    (_, i): Vec3 => [(i & 1 ? max_m : min_m)[0], (i & 2 ? max_m : min_m)[1], (i & 4 ? max_m : min_m)[2]]
  );
  const ahead = corners.filter((corner) => dot(subtract(corner, frame.eye), frame.forward) > 0);
  // a box that reaches behind the camera is taken to be seen when any of it lies before it
  if (!frame.parallel && ahead.length > 0 && ahead.length < 8) return true;
  const places = ahead.flatMap((corner) => placeInPicture(frame, corner) ?? []);
  if (places.length === 0) return false;
  const [xs, ys] = [places.map((p) => p.x), places.map((p) => p.y)];
  return Math.min(...xs) < 1 && Math.max(...xs) > 0 && Math.min(...ys) < 1 && Math.max(...ys) > 0;
}
