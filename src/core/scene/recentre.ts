/**
 * Moves a scene so that the camera stands near the origin: single precision is finest there, and a part of 5 mm on a site of 500 m
 * needs it. The centre lies on a grid, so that moving about keeps it, and with it the pack, mostly as it is.
 */
import type { CameraFrame } from '../camera/lens';
import { subtract, type Vec3 } from '../math/vec3';
import { boundsOf, type Scene } from './scene';

const GRID_M = 8;

export const centreFor = (eye: Vec3): Vec3 => [Math.round(eye[0] / GRID_M) * GRID_M, Math.round(eye[1] / GRID_M) * GRID_M, Math.round(eye[2] / GRID_M) * GRID_M];

export function recentreScene(scene: Scene, centre: Vec3): Scene {
  if (centre.every((c) => c === 0)) return scene;
  const positions = scene.geometry.positions.map((v, i) => v - centre[i % 3]!);
  const moved = (p: readonly [number, number, number]): [number, number, number] => [...subtract(p, centre)];
  return {
    ...scene,
    geometry: { ...scene.geometry, positions },
    lights: scene.lights.map((l) => (l.kind === 'directional' ? l : { ...l, position: moved(l.position) })),
    cameras: scene.cameras.map((c) => ({ ...c, position_m: moved(c.position_m), target_m: moved(c.target_m) })),
    bounds: boundsOf(positions)
  };
}

export const recentreCamera = (camera: CameraFrame, centre: Vec3): CameraFrame => ({ ...camera, eye: subtract(camera.eye, centre) });

