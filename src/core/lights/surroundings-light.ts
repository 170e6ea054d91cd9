/** Surroundings made ready for the kernel: what the four kinds come down to. */
import type { Vec3 } from '../math/vec3';
import type { ImportanceGrid } from './captured/importance';

export interface SurroundingsLight {
  /** One radiance from everywhere, cd/m2. */
  even: Vec3 | null;
  /** Latitude-longitude radiance in cd/m2 before `scale`, turned about +Y by `rotation` radians. */
  image: { pixels: Float32Array; width: number; height: number; scale: number; rotation: number; grid: ImportanceGrid } | null;
  sun: { direction: Vec3; radiance: Vec3; oneMinusCos: number } | null;
}
