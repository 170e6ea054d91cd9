/** Places spread over the upper faces of a surface: at random by area, each the farthest of a few from those before. */
import type { Vec3 } from '../math/vec3';
import type { Random } from '../sampling/random';

// Steeper faces carry nothing: the least height of a unit normal, about 60 degrees off level.
const LEAST_UP = 0.5;
/** Of which the one that is farthest from the others is taken (Mitchell 1991, best candidate). */
const CANDIDATES = 8;

/** `corners`: nine numbers a triangle, m. Empty when nothing of it looks upwards. */
export function spreadOver(corners: ArrayLike<number>, count: number, random: Random): Vec3[] {
  const upper: number[] = [];
  const areas: number[] = [];
  let sum = 0;
  for (let t = 0; t + 8 < corners.length; t += 9) {
    const [ux, uy, uz] = [0, 1, 2].map((k) => corners[t + 3 + k]! - corners[t + k]!) as [number, number, number];
    const [vx, vy, vz] = [0, 1, 2].map((k) => corners[t + 6 + k]! - corners[t + k]!) as [number, number, number];
    const n: Vec3 = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const area = Math.hypot(...n);
    // which way its corners go round says nothing: a floor may be drawn from below
    if (area === 0 || Math.abs(n[1]) < LEAST_UP * area) continue;
    sum += area;
    upper.push(t);
    areas.push(sum);
  }
  if (upper.length === 0) return [];
  const place = (): Vec3 => {
    const at = random() * sum;
    let [low, high] = [0, areas.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (areas[middle]! < at) low = middle + 1;
      else high = middle;
    }
    const t = upper[low]!;
    const root = Math.sqrt(random());
    const [a, b] = [1 - root, root * random()];
    const c = 1 - a - b;
    return [0, 1, 2].map(
      (k) => a * corners[t + k]! + b * corners[t + 3 + k]! + c * corners[t + 6 + k]!
    ) as unknown as Vec3;
  };
  const out: Vec3[] = [];
  for (let i = 0; i < count; i++) {
    let best = place();
    let distance = nearest(best, out);
    for (let c = 1; c < CANDIDATES; c++) {
      const other = place();
      const far = nearest(other, out);
      if (far > distance) [best, distance] = [other, far];
    }
    out.push(best);
  }
  return out;
}

/** Squared, seen from above. */
function nearest([x, , z]: Vec3, others: readonly Vec3[]): number {
  let least = Infinity;
  for (const other of others) least = Math.min(least, (x - other[0]) ** 2 + (z - other[2]) ** 2);
  return least;
}
