/** Lantern Hill: its height in m, rising towards the hut and rolling far out. */
import { field } from '../../drawing/noise';

/** Of the hut's drawing: its grid is 1.3 m wide, and everything of it is drawn in steps of that grid. */
export const GRID_M = 1.3;

export const ground = (x: number, z: number): number => GRID_M * slope(x / GRID_M, z / GRID_M);

/** In steps of the grid. */
export function slope(x: number, z: number): number {
  const far = Math.max(0, Math.hypot(x - 1, z - 7) - 22);
  return (
    (x - 2) * 0.085 +
    z * 0.02 -
    0.05 +
    0.14 * (field(x * 0.4, z * 0.4, 2) - 0.5) +
    Math.min(far, 90) * 0.22 * (field(x * 0.016, z * 0.016, 9) - 0.12) * Math.min(1, far / 60)
  );
}
