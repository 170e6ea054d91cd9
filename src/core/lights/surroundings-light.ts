/** Surroundings made ready for the kernel: what the four kinds come down to. */
import type { Vec3 } from '../math/vec3';
import type { ImportanceGrid } from './captured/importance';

export interface SurroundingsLight {
  /** One radiance from everywhere, cd/m2. */
  even: Vec3 | null;
  /** Latitude-longitude radiance in cd/m2 before `scale`, turned about +Y by `rotation` radians. */
  image: {
    pixels: Float32Array;
    width: number;
    height: number;
    scale: number;
    rotation: number;
    grid: ImportanceGrid;
  } | null;
  sun: Disc | null;
  /** Seen, but too faint to light anything. */
  stars?: Stars | null;
}

/** Sun or moon. */
export interface Disc {
  /** Towards it. */
  direction: Vec3;
  /** Mean over the disc, cd/m2. */
  radiance: Vec3;
  /** Of its angular radius. */
  oneMinusCos: number;
  /** How its edge darkens (sun/limb.ts); without, it does not. */
  limb?: Vec3 | null;
  /** Of the moon: the angle at it between sun and Earth, and the direction across the sky towards its lit edge. */
  moon?: { phase: number; side: Vec3 } | null;
}

export interface Stars {
  /** Of their true brightness. */
  gain: number;
  /** World directions of the sky's axes: right ascension 0 h and 6 h on the equator, and the pole. */
  axes: readonly [Vec3, Vec3, Vec3];
  /** Where clouds leave them, a byte a texel of the image; null where there are none. */
  clear: Uint8Array | null;
}
