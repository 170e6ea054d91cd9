/**
 * A studio round a product: an endless bowl of matte paper as floor and backdrop, a large warm softbox, a smaller cool one against
 * it, a strip behind for the edge, and a dim open ceiling. Everything is sized by the model, so the same light falls on a ring
 * and on a chair. Metres, +Y up; the floor lies at the model's foot; angle 0 puts the main softbox in front and to the left.
 * Arrangement of the lights: common practice, no source.
 */
import { add, cross, normalize, scale, subtract, type Vec3 } from '../../math/vec3';

export interface StudioSurface {
  positions: Float32Array;
  normals: Float32Array;
  indices: Uint32Array;
  kind: 'paper' | 'softbox';
  /** cd/m2 of a softbox. */
  radiance: Vec3;
}

export interface Studio {
  surfaces: StudioSurface[];
  /** What comes through the open ceiling. */
  ceiling: Vec3;
  paper: Vec3;
}

export interface StudioOptions {
  min: Vec3;
  max: Vec3;
  rotationDeg: number;
  brightnessEv: number;
  /** Farthest the camera stands from the model's middle; the bowl reaches beyond it. */
  cameraDistance: number;
}

const PAPER: Vec3 = [0.7, 0.685, 0.665];
const WARM: Vec3 = [1, 0.86, 0.7];
const COOL: Vec3 = [0.78, 0.9, 1];

export function buildStudio(options: StudioOptions): Studio {
  const middle: Vec3 = [(options.min[0] + options.max[0]) / 2, options.min[1], (options.min[2] + options.max[2]) / 2];
  const across = Math.hypot(options.max[0] - options.min[0], options.max[2] - options.min[2]);
  const tall = options.max[1] - options.min[1];
  const size = Math.max(across, tall, 1e-3);
  const radius = Math.max(3.8 * size, 1.4 * options.cameraDistance);
  const brightness = 2 ** options.brightnessEv;
  const centre: Vec3 = [middle[0], middle[1] + tall / 2, middle[2]];
  const turn = (options.rotationDeg * Math.PI) / 180;
  const place = (azimuthDeg: number, elevationDeg: number, distance: number): Vec3 => {
    const a = turn + (azimuthDeg * Math.PI) / 180;
    const e = (elevationDeg * Math.PI) / 180;
    return add(centre, scale([Math.sin(a) * Math.cos(e), Math.sin(e), Math.cos(a) * Math.cos(e)], distance * size));
  };
  return {
    paper: PAPER,
    ceiling: scale([1300, 1300, 1340], brightness),
    surfaces: [
      bowl(middle, radius),
      softbox(place(-48, 38, 2.6), centre, 1.7 * size, 2.3 * size, scale(WARM, 9000 * brightness)),
      softbox(place(62, 16, 3.0), centre, 0.9 * size, 2.0 * size, scale(COOL, 3400 * brightness)),
      softbox(place(165, 46, 3.0), centre, 2.2 * size, 0.45 * size, scale(WARM, 6000 * brightness))
    ]
  };
}

/** Floor, a quarter-circle sweep and a wall, turned about the vertical axis; its foot a hair below the model so that no faces coincide. */
function bowl(middle: Vec3, radius: number): StudioSurface {
  const segments = 96;
  const sweep = radius * 0.8;
  const profile: { r: number; y: number; nr: number; ny: number }[] = [];
  for (let i = 0; i <= 8; i++) profile.push({ r: ((radius - sweep) * i) / 8, y: 0, nr: 0, ny: 1 });
  for (let i = 1; i <= 16; i++) {
    const a = ((Math.PI / 2) * i) / 16;
    profile.push({ r: radius - sweep + sweep * Math.sin(a), y: sweep - sweep * Math.cos(a), nr: -Math.sin(a), ny: Math.cos(a) });
  }
  profile.push({ r: radius, y: radius * 0.9, nr: -1, ny: 0 });
  const positions: number[] = [];
  const normals: number[] = [];
  const indices: number[] = [];
  for (const { r, y, nr, ny } of profile) {
    for (let s = 0; s <= segments; s++) {
      const a = (2 * Math.PI * s) / segments;
      positions.push(middle[0] + r * Math.cos(a), middle[1] + y - radius * 2e-6, middle[2] + r * Math.sin(a));
      normals.push(nr * Math.cos(a), ny, nr * Math.sin(a));
    }
  }
  const row = segments + 1;
  for (let p = 0; p + 1 < profile.length; p++) {
    for (let s = 0; s < segments; s++) {
      const a = p * row + s;
      indices.push(a, a + 1, a + row + 1, a, a + row + 1, a + row);
    }
  }
  return { positions: Float32Array.from(positions), normals: Float32Array.from(normals), indices: Uint32Array.from(indices), kind: 'paper', radiance: [0, 0, 0] };
}

function softbox(at: Vec3, target: Vec3, width: number, height: number, radiance: Vec3): StudioSurface {
  const facing = normalize(subtract(target, at));
  const right = normalize(cross([0, 1, 0], facing));
  const up = cross(facing, right);
  const corner = (x: number, y: number) => add(at, add(scale(right, (x * width) / 2), scale(up, (y * height) / 2)));
  const corners = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  return {
    positions: Float32Array.from(corners.flat()),
    normals: Float32Array.from(corners.flatMap(() => [...facing])),
    indices: Uint32Array.from([0, 1, 2, 0, 2, 3]),
    kind: 'softbox',
    radiance
  };
}
