/**
 * The opening that a pane fills: the piece of a mesh that hangs together with a triangle, and the upright rectangle round it in the plane that
 * it lies in. Metres, world coordinates.
 */
import { add, cross, dot, normalize, scale, type Vec3 } from '../math/vec3';

export interface Opening {
  middle: Vec3;
  /** Unit, out of the pane to the side that was asked for. */
  normal: Vec3;
  width_m: number;
  height_m: number;
  /** How thick the pane is. */
  depth_m: number;
}

const WELD_M = 1e-4;

/** `positions`: xyz a vertex; `indices`: three a triangle; `normal`: of the side it is seen from. */
export function openingAt(positions: ArrayLike<number>, indices: ArrayLike<number>, triangle: number, normal: Vec3): Opening {
  const weld = new Map<string, number>();
  const placeOf = (vertex: number) => {
    const key = [0, 1, 2].map((k) => Math.round(positions[vertex * 3 + k]! / WELD_M)).join(' ');
    const known = weld.get(key);
    if (known !== undefined) return known;
    weld.set(key, weld.size);
    return weld.size - 1;
  };
  const count = indices.length / 3;
  const trianglesAt: number[][] = [];
  const places = Array.from({ length: indices.length }, (_, i) => placeOf(indices[i]!));
  for (const [i, place] of places.entries()) {
    trianglesAt[place] ??= [];
    trianglesAt[place].push(Math.floor(i / 3));
  }
  const seen = new Uint8Array(count);
  const open = [triangle];
  seen[triangle] = 1;
  const n = normalize(normal);
  // a pane stands upright, and its width is level; one that lies flat takes any direction as level
  const level = normalize(Math.abs(n[1]) > 0.99 ? [1, 0, 0] : cross([0, 1, 0], n));
  const upright = cross(n, level);
  const axes = [level, upright, n];
  const least = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const most = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let t = open.pop(); t !== undefined; t = open.pop()) {
    for (let c = 0; c < 3; c++) {
      const vertex = indices[t * 3 + c]!;
      const p: Vec3 = [positions[vertex * 3]!, positions[vertex * 3 + 1]!, positions[vertex * 3 + 2]!];
      for (const [k, axis] of axes.entries()) {
        least[k] = Math.min(least[k]!, dot(p, axis));
        most[k] = Math.max(most[k]!, dot(p, axis));
      }
      for (const next of trianglesAt[places[t * 3 + c]!]!) {
        if (seen[next]) continue;
        seen[next] = 1;
        open.push(next);
      }
    }
  }
  const middle = axes.reduce<Vec3>((sum, axis, k) => add(sum, scale(axis, (least[k]! + most[k]!) / 2)), [0, 0, 0]);
  return { middle, normal: n, width_m: most[0]! - least[0]!, height_m: most[1]! - least[1]!, depth_m: most[2]! - least[2]! };
}
