/** Three-vectors in world metres or as directions. Free functions; short-lived results are fine outside the kernel. */
export type Vec3 = readonly [number, number, number];

export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const subtract = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vec3, s: number): Vec3 => [a[0] * s, a[1] * s, a[2] * s];
export const multiply = (a: Vec3, b: Vec3): Vec3 => [a[0] * b[0], a[1] * b[1], a[2] * b[2]];
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0]
];
export const length = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);
/** Unit vector; the zero vector stays zero. */
export const normalize = (a: Vec3): Vec3 => {
  const size = length(a);
  return size > 0 ? scale(a, 1 / size) : a;
};
export const mix = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t
];

/**
 * Two unit vectors that complete a unit normal to a right-handed frame (tangent, bitangent, normal). Duff et al. 2017,
 * JCGT 6(1).
 */
export function frameAround(n: Vec3): { tangent: Vec3; bitangent: Vec3 } {
  const sign = n[2] < 0 ? -1 : 1;
  const a = -1 / (sign + n[2]);
  const b = n[0] * n[1] * a;
  return {
    tangent: [1 + sign * n[0] * n[0] * a, sign * b, -sign * n[0]],
    bitangent: [b, sign + n[1] * n[1] * a, -n[1]]
  };
}
