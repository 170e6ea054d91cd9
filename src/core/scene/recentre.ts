/**
 * Moves a scene so that the camera stands near the origin: single precision is finest there, and a part of 5 mm on a
 * site of 500 m needs it. The centre lies on a grid, so that moving about keeps it, and with it the pack, mostly as it
 * is.
 */
import type { CameraFrame } from '../camera/lens';
import type { Affine } from '../math/affine';
import { subtract, type Vec3 } from '../math/vec3';
import { type Scene, worldParts } from './scene';

const GRID_M = 8;

export const centreFor = (eye: Vec3): Vec3 => [
  Math.round(eye[0] / GRID_M) * GRID_M,
  Math.round(eye[1] / GRID_M) * GRID_M,
  Math.round(eye[2] / GRID_M) * GRID_M
];

/** What a set adds is not moved: it is made where the model then stands. */
export function recentreScene<T extends Scene>(scene: T, centre: Vec3): T {
  if (centre.every((c) => c === 0)) return scene;
  const positions = scene.geometry.positions.map((v, i) => v - centre[i % 3]!);
  const moved = (p: readonly [number, number, number]): [number, number, number] => [...subtract(p, centre)];
  const shifted = (m: Affine): Affine => [
    m[0],
    m[1],
    m[2],
    m[3],
    m[4],
    m[5],
    m[6],
    m[7],
    m[8],
    m[9] - centre[0],
    m[10] - centre[1],
    m[11] - centre[2]
  ];
  return {
    ...scene,
    parts: worldParts(scene).map((p) => ({ ...p, matrix: shifted(p.matrix) })),
    instances: scene.instances.map((i) => ({ ...i, matrix: shifted(i.matrix) })),
    geometry: { ...scene.geometry, positions },
    ...(scene.openings ? { openings: scene.openings.map((o) => ({ ...o, middle_m: moved(o.middle_m) })) } : {}),
    lights: scene.lights.map((l) => (l.kind === 'directional' ? l : { ...l, position: moved(l.position) })),
    cameras: scene.cameras.map((c) => ({ ...c, position_m: moved(c.position_m), target_m: moved(c.target_m) })),
    bounds: { min: subtract(scene.bounds.min, centre), max: subtract(scene.bounds.max, centre) }
  };
}

export const recentreCamera = (camera: CameraFrame, centre: Vec3): CameraFrame => ({
  ...camera,
  eye: subtract(camera.eye, centre)
});
