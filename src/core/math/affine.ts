/** Affine maps of space: three columns and a translation, twelve numbers. p' = x c0 + y c1 + z c2 + t. */
import { cross, dot, length, normalize, scale, subtract, type Vec3 } from './vec3';

export type Affine = readonly [
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number
];

export const IDENTITY: Affine = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];

const column = (m: Affine, k: number): Vec3 => [m[k * 3]!, m[k * 3 + 1]!, m[k * 3 + 2]!];

export const affine = (c0: Vec3, c1: Vec3, c2: Vec3, t: Vec3): Affine => [...c0, ...c1, ...c2, ...t];

export const applyAffine = (m: Affine, [x, y, z]: Vec3): Vec3 => [
  m[0] * x + m[3] * y + m[6] * z + m[9],
  m[1] * x + m[4] * y + m[7] * z + m[10],
  m[2] * x + m[5] * y + m[8] * z + m[11]
];

/** Above 0 when it keeps the hand, below when it mirrors. */
/** `a` after `b`. */
export function multiplyAffine(a: Affine, b: Affine): Affine {
  const turned = (k: number): Vec3 => {
    const [x, y, z] = column(b, k);
    return [0, 1, 2].map((r) => a[r]! * x + a[3 + r]! * y + a[6 + r]! * z) as unknown as Vec3;
  };
  return affine(turned(0), turned(1), turned(2), applyAffine(a, column(b, 3)));
}

export const determinant = (m: Affine): number => dot(column(m, 0), cross(column(m, 1), column(m, 2)));

export function invertAffine(m: Affine): Affine {
  const [a, b, c, t] = [0, 1, 2, 3].map((k) => column(m, k)) as [Vec3, Vec3, Vec3, Vec3];
  const k = 1 / determinant(m);
  if (!Number.isFinite(k))
    throw new RangeError('invertAffine: expected a map that keeps three dimensions, got a flat one');
  // rows of the inverse
  const rows = [scale(cross(b, c), k), scale(cross(c, a), k), scale(cross(a, b), k)];
  const columns = [0, 1, 2].map((j) => [rows[0]![j]!, rows[1]![j]!, rows[2]![j]!] as const);
  const moved: Vec3 = [-dot(rows[0]!, t), -dot(rows[1]!, t), -dot(rows[2]!, t)];
  return affine(columns[0]!, columns[1]!, columns[2]!, moved);
}

/**
 * The turn and move of a map without its scaling; of a mirrored one the last axis is turned over. Shears are
 * straightened; a flat map keeps the move alone.
 */
export function rigidPart(m: Affine): Affine {
  const x = normalize(column(m, 0));
  const y0 = column(m, 1);
  const y = normalize(subtract(y0, scale(x, dot(x, y0))));
  if (length(x) === 0 || length(y) === 0) return affine([1, 0, 0], [0, 1, 0], [0, 0, 1], column(m, 3));
  return affine(x, y, cross(x, y), column(m, 3));
}

/** The box about a box that was moved. */
export function boundsUnder(m: Affine, { min, max }: { min: Vec3; max: Vec3 }): { min: Vec3; max: Vec3 } {
  const low: [number, number, number] = [m[9], m[10], m[11]];
  const high: [number, number, number] = [m[9], m[10], m[11]];
  for (let j = 0; j < 3; j++) {
    for (let k = 0; k < 3; k++) {
      const a = m[j * 3 + k]! * min[j]!;
      const b = m[j * 3 + k]! * max[j]!;
      low[k]! += Math.min(a, b);
      high[k]! += Math.max(a, b);
    }
  }
  return { min: low, max: high };
}

/** Most that it stretches an axis. */
export const stretch = (m: Affine): number => Math.max(...[0, 1, 2].map((k) => length(column(m, k))));
