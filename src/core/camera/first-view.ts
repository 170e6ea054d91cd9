/**
 * Where a new model is first seen from: a room from inside, from the corner that shows most of it and its openings; what is
 * larger than furniture from the height of the eye on its ground. Decided by rays into the model, not by names. Metres,
 * +Y up.
 */
import { add, normalize, scale, subtract, type Vec3 } from '../math/vec3';
import { frameWhole, SENSOR_HEIGHT_MM } from './frame-whole';
import type { FreeViewpoint } from './viewpoint';

/** What a ray of unit length meets first; null for nothing. `clear`: a pane. */
export type Cast = (from: Vec3, way: Vec3) => { distance_m: number; clear: boolean } | null;

export interface FirstView {
  kind: 'room' | 'standing';
  viewpoint: FreeViewpoint;
  /** Of a room: direction, towards the outside, of the opening that it gets its light from. */
  opening?: [number, number, number];
  /** Of what stands: whether the model brings its ground. */
  ground?: boolean;
}

/** Width over height of a landscape sheet of the A series (ISO 216). */
export const A_SERIES = Math.SQRT2;
// From this on it is a building under the sky, below a thing in a studio.
const LARGE_M = 3;
export const isLarge = (min: Vec3, max: Vec3): boolean => Math.max(...subtract(max, min)) >= LARGE_M;

const EYE_M = 1.6;
const PLAN_STEPS = 7;
const TURNS = 32;

/**
 * A room of one floor, whose outside nobody would show: null for everything else. `lit`: whether the model has lamps; a body
 * without them and without an opening is no room but a solid block.
 */
export function roomView(min: Vec3, max: Vec3, cast: Cast, lit: boolean): FirstView | null {
  const size = subtract(max, min);
  if (size[1] < 2 || size[1] > 8 || Math.min(size[0], size[2]) < 1.5) return null;
  const spots: Vec3[] = [];
  let roofed = 0;
  for (let i = 0; i < PLAN_STEPS; i++)
    for (let k = 0; k < PLAN_STEPS; k++) {
      const x = min[0] + (size[0] * (i + 0.5)) / PLAN_STEPS;
      const z = min[2] + (size[2] * (k + 0.5)) / PLAN_STEPS;
      const floor = cast([x, min[1] + Math.min(1.9, size[1] * 0.7), z], [0, -1, 0]);
      if (!floor) continue;
      const eye: Vec3 = [x, min[1] + Math.min(1.9, size[1] * 0.7) - floor.distance_m + EYE_M, z];
      const ceiling = cast(eye, [0, 1, 0]);
      if (!ceiling || !walled(eye, cast)) continue;
      spots.push(eye);
      // its ceiling is the top of the model: there is no storey above and no roof to be seen
      if (eye[1] + ceiling.distance_m > max[1] - 0.8) roofed++;
    }
  if (spots.length < (PLAN_STEPS * PLAN_STEPS) / 4 || roofed < spots.length * 0.8) return null;
  let best: { score: number; eye: Vec3; way: Vec3 } | null = null;
  for (const eye of spots)
    for (let t = 0; t < TURNS; t++) {
      const a = (2 * Math.PI * t) / TURNS;
      const way: Vec3 = [Math.sin(a), 0, Math.cos(a)];
      const score = scoreOf(eye, way, cast);
      if (score !== null && (best === null || score > best.score)) best = { score, eye, way };
    }
  if (!best) return null;
  const { eye, way } = best;
  // a photographer of rooms keeps the camera level, a little below the eye, and looks into the room
  const at: Vec3 = [eye[0], eye[1] - 0.2, eye[2]];
  const target = add(at, scale(way, 3));
  const opening = brightest(spots, cast);
  if (!opening && !lit) return null;
  return {
    kind: 'room',
    viewpoint: {
      position_m: [...at],
      target_m: [...target],
      up: [0, 1, 0],
      projection: 'perspective',
      upright: true,
      focal_length_mm: 20,
      sensor_height_mm: SENSOR_HEIGHT_MM,
      f_number: null,
      focus_m: null,
      height_m: null
    },
    ...(opening ? { opening: [...opening] as [number, number, number] } : {})
  };
}

// Of the rays around, so many meet something; panes are walls here.
const WALLED = 0.7;

function walled(eye: Vec3, cast: Cast): boolean {
  let met = 0;
  for (let t = 0; t < TURNS; t++) {
    const a = (2 * Math.PI * t) / TURNS;
    if (cast(eye, [Math.sin(a), 0, Math.cos(a)])) met++;
  }
  return met >= WALLED * TURNS;
}

// Half of what a lens of 20 mm sees across a sheet of the A series.
const HALF_VIEW = (40 * Math.PI) / 180;
const ACROSS = 9;
const HEIGHTS = [-0.3, -0.12, 0.05, 0.2];

/** How much room a view shows, and how much of it is open; null when something stands in the way. */
function scoreOf(eye: Vec3, way: Vec3, cast: Cast): number | null {
  let depth = 0;
  let open = 0;
  let nearest = Number.POSITIVE_INFINITY;
  for (let i = 0; i < ACROSS; i++) {
    const a = Math.atan2(way[0], way[2]) + HALF_VIEW * ((2 * i) / (ACROSS - 1) - 1);
    for (const height of HEIGHTS) {
      const hit = cast(eye, normalize([Math.sin(a), height, Math.cos(a)]));
      if (!hit || hit.clear) open++;
      // what is far is seen no better for being farther
      depth += Math.log(1 + Math.min(hit?.distance_m ?? 4, 12));
      if (hit) nearest = Math.min(nearest, hit.distance_m);
    }
  }
  if (nearest < 0.7) return null;
  const rays = ACROSS * HEIGHTS.length;
  // a window belongs into the picture, but does not fill it
  const share = open / rays;
  return depth / rays + 0.9 * Math.min(share, 0.12) - 1.5 * Math.max(0, share - 0.35);
}

/** The mean direction of the rays that leave a room from all over it; null when hardly one does. */
function brightest(spots: readonly Vec3[], cast: Cast): Vec3 | null {
  let sum: Vec3 = [0, 0, 0];
  for (const eye of spots)
    for (let t = 0; t < TURNS; t++) {
      const a = (2 * Math.PI * t) / TURNS;
      for (const height of [0, 0.3]) {
        const way = normalize([Math.sin(a), height, Math.cos(a)]);
        const hit = cast(eye, way);
        if (!hit || hit.clear) sum = add(sum, [way[0], 0, way[2]]);
      }
    }
  return Math.hypot(...sum) > spots.length ? normalize(sum) : null;
}

// A model flatter than this is a site, which is seen from above.
const FLAT = 0.12;
// Of the model's height: what is higher is a roof.
const LOW = 0.4;
// Of its width, within its edge.
const EDGE = 0.01;
// With room about it, for sky and ground.
const FARTHER = 1.22;
const FRONT_LEFT: Vec3 = [-0.55, 0, 1];

/** A building or a large thing from the height of the eye on the ground before it; null for a flat site. */
export function standingView(min: Vec3, max: Vec3, aspect: number, cast: Cast): FirstView | null {
  const size = subtract(max, min);
  if (size[1] < FLAT * Math.max(size[0], size[2])) return null;
  const framed = frameWhole(min, max, aspect, 35, FRONT_LEFT);
  const middle = scale(add(min, max), 0.5);
  const [x, , z] = add(middle, scale(subtract(framed.position_m, middle), FARTHER));
  // terrain of the model lies there, or ends on the way there
  const near = (v: number, k: 0 | 2) => Math.min(max[k] - EDGE * size[k], Math.max(min[k] + EDGE * size[k], v));
  const below = cast([near(x, 0), max[1] + 1, near(z, 2)], [0, -1, 0]);
  const high = below && max[1] + 1 - below.distance_m;
  const own = high !== null && high < min[1] + LOW * size[1];
  const ground = own ? high : min[1];
  return {
    kind: 'standing',
    viewpoint: { ...framed, position_m: [x, ground + EYE_M, z], upright: true },
    ground: own
  };
}
