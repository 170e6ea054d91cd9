/**
 * The paper of a studio: what the model stands on and before. Metres, +Y up; its foot a hair below the model, so that
 * no faces coincide.
 */
import type { Vec3 } from '../../math/vec3';

export interface PaperSurface {
  positions: Float32Array;
  normals: Float32Array;
  indices: Uint32Array;
}

interface ProfilePoint {
  /** Away from the middle, and up. */
  r: number;
  y: number;
  nr: number;
  ny: number;
}

const HAIR = 2e-6;
const CURVE_STEPS = 16;

/** Floor, a quarter circle, and a wall. */
function profile(reach: number, curve: number, wall: number): ProfilePoint[] {
  const out: ProfilePoint[] = [];
  for (let i = 0; i <= 8; i++) out.push({ r: ((reach - curve) * i) / 8, y: 0, nr: 0, ny: 1 });
  for (let i = 1; i <= CURVE_STEPS; i++) {
    const a = ((Math.PI / 2) * i) / CURVE_STEPS;
    out.push({
      r: reach - curve + curve * Math.sin(a),
      y: curve - curve * Math.cos(a),
      nr: -Math.sin(a),
      ny: Math.cos(a)
    });
  }
  out.push({ r: reach, y: wall, nr: -1, ny: 0 });
  return out;
}

/** An endless bowl: the profile turned about the vertical axis through `middle`. */
export function bowl(middle: Vec3, radius: number): PaperSurface {
  const segments = 96;
  const points = profile(radius, radius * 0.8, radius * 0.9);
  const positions: number[] = [];
  const normals: number[] = [];
  for (const { r, y, nr, ny } of points) {
    for (let s = 0; s <= segments; s++) {
      const a = (2 * Math.PI * s) / segments;
      positions.push(middle[0] + r * Math.cos(a), middle[1] + y - radius * HAIR, middle[2] + r * Math.sin(a));
      normals.push(nr * Math.cos(a), ny, nr * Math.sin(a));
    }
  }
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    indices: grid(points.length, segments + 1)
  };
}

/**
 * A roll of paper `width` wide that rises `behind` the middle, turned by `turn` radians about the vertical axis; 0 has
 * its wall at -Z.
 */
export function sweep(
  middle: Vec3,
  width: number,
  behind: number,
  before: number,
  wall: number,
  turn: number
): PaperSurface {
  const rising = profile(behind, Math.min(behind * 0.7, wall * 0.5), wall);
  const points: ProfilePoint[] = [{ r: -before, y: 0, nr: 0, ny: 1 }, ...rising];
  const positions: number[] = [];
  const normals: number[] = [];
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  for (const { r, y, nr, ny } of points) {
    for (const side of [-0.5, 0.5]) {
      const [x, z] = [side * width, -r];
      positions.push(middle[0] + x * c + z * s, middle[1] + y - width * HAIR, middle[2] - x * s + z * c);
      normals.push(-nr * s, ny, -nr * c);
    }
  }
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    indices: grid(points.length, 2)
  };
}

function grid(rows: number, columns: number): Uint32Array {
  const out: number[] = [];
  for (let p = 0; p + 1 < rows; p++) {
    for (let s = 0; s + 1 < columns; s++) {
      const a = p * columns + s;
      out.push(a, a + 1, a + columns + 1, a, a + columns + 1, a + columns);
    }
  }
  return Uint32Array.from(out);
}
