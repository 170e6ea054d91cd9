/**
 * Rooms as surroundings: simple boxes with windows and lamps, reckoned and not photographed, for who wants the light of
 * an interior round a thing without an interior. Each is seen from its middle at the height of a table; a box of walls
 * whose light is their colour times one even bounce of what its windows let in (Lambert; the integrating sphere's
 * mean), with soft edges a texel wide. Frame and image: +Y up, column u = atan2(z, x) / 2 pi + 1/2, row v = angle from
 * +Y over pi. Radiance in cd/m2.
 */
import type { Vec3 } from '../../math/vec3';

interface Opening {
  /** Which face it lies in: +X, -X, +Y (ceiling), -Y, +Z, -Z. */
  face: 0 | 1 | 2 | 3 | 4 | 5;
  /** Middle and half size along the face's two axes, in half sizes of the room, -1 to 1. */
  at: readonly [number, number];
  half: readonly [number, number];
  radiance: Vec3;
  /** Panes across and up, with bars between; 1 and 1 for none. */
  panes?: readonly [number, number];
}

interface Room {
  name: string;
  /** Half width (x), height (y) and depth (z), m. */
  half: Vec3;
  wall: Vec3;
  floor: Vec3;
  ceiling: Vec3;
  openings: readonly Opening[];
}

const DAYLIGHT: Vec3 = [3600, 4000, 4600];
const EVENING: Vec3 = [420, 560, 900];
const LAMP: Vec3 = [9000, 6600, 4100];

export const ROOMS = {
  windows: {
    name: 'wall of windows',
    half: [4, 1.5, 5],
    wall: [0.62, 0.6, 0.56],
    floor: [0.28, 0.2, 0.13],
    ceiling: [0.75, 0.75, 0.74],
    openings: [{ face: 1, at: [0.1, 0], half: [0.7, 0.85], radiance: DAYLIGHT, panes: [3, 5] }]
  },
  gallery: {
    name: 'gallery with top light',
    half: [5, 2.6, 7],
    wall: [0.8, 0.8, 0.79],
    floor: [0.4, 0.38, 0.35],
    ceiling: [0.8, 0.8, 0.8],
    openings: [-0.6, 0, 0.6].map((z) => ({
      face: 2 as const,
      at: [0, z] as const,
      half: [0.62, 0.14] as const,
      radiance: DAYLIGHT,
      panes: [4, 1] as const
    }))
  },
  corner: {
    name: 'corner room',
    half: [2.6, 1.35, 3],
    wall: [0.7, 0.67, 0.6],
    floor: [0.34, 0.25, 0.17],
    ceiling: [0.78, 0.77, 0.75],
    openings: [
      { face: 0, at: [0.12, -0.1], half: [0.42, 0.5], radiance: DAYLIGHT, panes: [2, 2] },
      { face: 5, at: [0.15, 0.2], half: [0.34, 0.4], radiance: [1700, 1900, 2300], panes: [2, 2] }
    ]
  },
  lamplight: {
    name: 'two lamps in the evening',
    half: [2.8, 1.35, 3.4],
    wall: [0.55, 0.47, 0.38],
    floor: [0.22, 0.14, 0.08],
    ceiling: [0.7, 0.68, 0.64],
    openings: [
      { face: 0, at: [0.1, -0.5], half: [0.11, 0.07], radiance: LAMP },
      { face: 1, at: [0.25, 0.45], half: [0.13, 0.08], radiance: LAMP },
      { face: 5, at: [0.1, 0.1], half: [0.4, 0.5], radiance: EVENING, panes: [3, 2] }
    ]
  },
  workshop: {
    name: 'workshop with strip lights',
    half: [5, 1.9, 8],
    wall: [0.5, 0.5, 0.48],
    floor: [0.3, 0.3, 0.29],
    ceiling: [0.45, 0.45, 0.45],
    openings: [-0.55, 0, 0.55].map((x) => ({
      face: 2 as const,
      at: [x, 0] as const,
      half: [0.03, 0.8] as const,
      radiance: [7600, 8000, 7600] as Vec3
    }))
  },
  cave: {
    name: 'one door into the light',
    half: [2.5, 1.6, 6],
    wall: [0.16, 0.15, 0.14],
    floor: [0.12, 0.11, 0.1],
    ceiling: [0.16, 0.15, 0.14],
    openings: [{ face: 4, at: [-0.2, -0.1], half: [0.26, 0.86], radiance: [9000, 9600, 10_200] }]
  }
} as const satisfies Record<string, Room>;

export type RoomKey = keyof typeof ROOMS;
export const ROOM_KEYS = Object.keys(ROOMS) as RoomKey[];

const WIDTH = 1024;
const HEIGHT = 512;
const BAR = 0.05;
// Colour steps of a box would look like cut paper; corners are a little darker than the middles of walls.
const CORNER_SHADE = 0.35;

export function makeRoom(key: RoomKey): { pixels: Float32Array; width: number; height: number } {
  const room: Room = ROOMS[key];
  const bounce = meanLight(room);
  const pixels = new Float32Array(WIDTH * HEIGHT * 3);
  for (let row = 0; row < HEIGHT; row++) {
    for (let column = 0; column < WIDTH; column++) {
      const o = (row * WIDTH + column) * 3;
      // four looks a texel, so that edges are soft
      for (const [dx, dy] of [
        [0.25, 0.25],
        [0.75, 0.25],
        [0.25, 0.75],
        [0.75, 0.75]
      ] as const) {
        const theta = ((row + dy) / HEIGHT) * Math.PI;
        const phi = ((column + dx) / WIDTH - 0.5) * 2 * Math.PI;
        const seen = look(room, bounce, [
          Math.sin(theta) * Math.cos(phi),
          Math.cos(theta),
          Math.sin(theta) * Math.sin(phi)
        ]);
        for (let c = 0; c < 3; c++) pixels[o + c] = pixels[o + c]! + seen[c]! / 4;
      }
    }
  }
  return { pixels, width: WIDTH, height: HEIGHT };
}

/** The other two axes of a face with their order: across and up, or across and along for floor and ceiling. */
const AXES = [
  [2, 1],
  [2, 1],
  [0, 2],
  [0, 2],
  [0, 1],
  [0, 1]
] as const;

/** Where a look from the middle meets the box. */
function meet({ half }: Room, d: Vec3): { face: number; at: [number, number] } {
  let nearest = Number.POSITIVE_INFINITY;
  let face = 0;
  for (let axis = 0; axis < 3; axis++) {
    const t = half[axis]! / Math.max(Math.abs(d[axis]!), 1e-12);
    if (t < nearest) [nearest, face] = [t, axis * 2 + (d[axis]! > 0 ? 0 : 1)];
  }
  const [a, b] = AXES[face]!;
  return { face, at: [(d[a] * nearest) / half[a], (d[b] * nearest) / half[b]] };
}

function look(room: Room, bounce: Vec3, d: Vec3): Vec3 {
  const { face, at } = meet(room, d);
  for (const opening of room.openings) {
    if (opening.face !== face) continue;
    const x = (at[0] - opening.at[0]) / opening.half[0];
    const y = (at[1] - opening.at[1]) / opening.half[1];
    if (Math.abs(x) < 1 && Math.abs(y) < 1 && !onBar(x, y, opening.panes ?? [1, 1])) return opening.radiance;
  }
  const color = face === 2 ? room.ceiling : face === 3 ? room.floor : room.wall;
  const shade = 1 - CORNER_SHADE * Math.max(at[0] ** 6, at[1] ** 6);
  return [color[0] * bounce[0] * shade, color[1] * bounce[1] * shade, color[2] * bounce[2] * shade];
}

function onBar(x: number, y: number, [across, up]: readonly [number, number]): boolean {
  const near = (v: number, n: number) =>
    n > 1 && Math.abs(((v + 1) / 2) * n - Math.round(((v + 1) / 2) * n)) < (BAR * n) / 2 && Math.abs(v) < 1 - BAR;
  return near(x, across) || near(y, up);
}

/**
 * Irradiance over pi that walls get, as if spread evenly: flux of the openings over the walls that are left, with all
 * bounces (integrating sphere).
 */
function meanLight({ half, wall, floor, ceiling, openings }: Room): Vec3 {
  const [x, y, z] = half;
  const faces = [4 * z * y, 4 * z * y, 4 * x * z, 4 * x * z, 4 * x * y, 4 * x * y];
  const total = faces.reduce((a, b) => a + b, 0);
  const open = openings.map((o) => faces[o.face]! * o.half[0] * o.half[1]);
  return [0, 1, 2].map((c) => {
    const reflected =
      (wall[c]! * (faces[0]! + faces[1]! + faces[4]! + faces[5]!) + ceiling[c]! * faces[2]! + floor[c]! * faces[3]!) /
      total;
    const flux = openings.reduce((sum, o, i) => sum + o.radiance[c]! * open[i]!, 0);
    return flux / total / (1 - reflected);
  }) as unknown as Vec3;
}
