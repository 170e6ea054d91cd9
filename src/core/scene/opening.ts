/**
 * The opening that a pane fills: the piece of a mesh that hangs together with a triangle, and the upright rectangle
 * round it in the plane that it lies in. Metres, world coordinates.
 */
import { add, cross, dot, normalize, scale, subtract, type Vec3 } from '../math/vec3';

export interface Opening {
  middle: Vec3;
  /** Unit, out of the pane to the side that was asked for. */
  normal: Vec3;
  width_m: number;
  height_m: number;
  /** How thick the pane is. */
  depth_m: number;
}

/** An opening without a pane, through which a room gets its light: an upright rectangle, or one that lies level. */
export interface OpenFrame {
  middle_m: Vec3;
  /** Unit, to either side. */
  normal: Vec3;
  width_m: number;
  height_m: number;
}

/** A pane stands upright, and its width is level; one that lies flat takes any direction as level. */
const axesOf = (normal: Vec3): [level: Vec3, upright: Vec3] => {
  const level = normalize(Math.abs(normal[1]) > 0.99 ? [1, 0, 0] : cross([0, 1, 0], normal));
  return [level, cross(normal, level)];
};

/** The opening between two opposite corners of it, in the plane of the first; null when they are one place. */
export function openingBetween(first: Vec3, second: Vec3, normal: Vec3): OpenFrame | null {
  const n = normalize(normal);
  const [level, upright] = axesOf(n);
  const across = subtract(second, first);
  const [width, height] = [dot(across, level), dot(across, upright)];
  if (Math.abs(width) < MIN_M || Math.abs(height) < MIN_M) return null;
  return {
    middle_m: add(first, add(scale(level, width / 2), scale(upright, height / 2))),
    normal: n,
    width_m: Math.abs(width),
    height_m: Math.abs(height)
  };
}

/** A corner of it, and its sides from there. */
export function sidesOf({ middle_m, normal, width_m, height_m }: OpenFrame): { corner: Vec3; a: Vec3; b: Vec3 } {
  const [level, upright] = axesOf(normal);
  const [a, b] = [scale(level, width_m), scale(upright, height_m)];
  return { corner: subtract(middle_m, scale(add(a, b), 0.5)), a, b };
}

/** Whether a ray from a place goes through it. */
export function leadsThrough(opening: OpenFrame, from: Vec3, direction: Vec3): boolean {
  const facing = dot(direction, opening.normal);
  const away = subtract(opening.middle_m, from);
  const distance = dot(away, opening.normal) / facing;
  if (!(distance > 0) || !Number.isFinite(distance)) return false;
  const off = subtract(scale(direction, distance), away);
  const [level, upright] = axesOf(opening.normal);
  return Math.abs(dot(off, level)) <= opening.width_m / 2 && Math.abs(dot(off, upright)) <= opening.height_m / 2;
}

// A smaller one was a slip of the hand.
const MIN_M = 0.01;
const WELD_M = 1e-4;

/** `positions`: xyz a vertex; `indices`: three a triangle; `normal`: of the side it is seen from. */
export function openingAt(
  positions: ArrayLike<number>,
  indices: ArrayLike<number>,
  triangle: number,
  normal: Vec3
): Opening {
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
  const [level, upright] = axesOf(n);
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
  return {
    middle,
    normal: n,
    width_m: most[0]! - least[0]!,
    height_m: most[1]! - least[1]!,
    depth_m: most[2]! - least[2]!
  };
}
