/**
 * Cameras of three.js that see just what the renderer sees: made of its frame (core/camera/lens.ts), with its shifted lens.
 * A panorama has no flat picture: panorama-view.ts draws it, and takes only near and far from the camera made here.
 */
import { Matrix4, OrthographicCamera, PerspectiveCamera } from 'three';
import { type CameraFrame, createCameraFrame } from '../../../core/camera/lens';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';

/** Of a panorama, while it is moved about in: tangent of half its height. */
const AHEAD = 0.8;

/** Null where the viewpoint looks nowhere. */
export function frameCamera(
  view: FreeViewpoint,
  aspect: number,
  near: number,
  far: number
): PerspectiveCamera | OrthographicCamera | null {
  const frame = createCameraFrame(view, aspect);
  if (!frame) return null;
  const { parallel, panorama, right, up, forward, eye } = frame;
  const camera = parallel ? new OrthographicCamera() : new PerspectiveCamera();
  camera.near = near;
  camera.far = far;
  camera.matrixAutoUpdate = false;
  camera.matrix
    .set(
      right[0],
      up[0],
      -forward[0],
      eye[0],
      right[1],
      up[1],
      -forward[1],
      eye[1],
      right[2],
      up[2],
      -forward[2],
      eye[2],
      0,
      0,
      0,
      1
    )
    .decompose(camera.position, camera.quaternion, camera.scale);
  camera.updateMatrixWorld(true);
  const seen = panorama ? { ...frame, halfHeight: AHEAD, halfWidth: AHEAD * aspect } : frame;
  camera.projectionMatrix.copy(projection(seen, near, far));
  camera.projectionMatrixInverse.copy(camera.projectionMatrix).invert();
  return camera;
}

function projection({ parallel, halfWidth, halfHeight, shift }: CameraFrame, near: number, far: number): Matrix4 {
  const k = parallel ? 1 : near;
  const sides = [
    (shift[0] - 1) * halfWidth * k,
    (shift[0] + 1) * halfWidth * k,
    (shift[1] + 1) * halfHeight * k,
    (shift[1] - 1) * halfHeight * k
  ] as const;
  const out = new Matrix4();
  return parallel ? out.makeOrthographic(...sides, near, far) : out.makePerspective(...sides, near, far);
}
