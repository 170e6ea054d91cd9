/**
 * A small object to judge a material by, 10 cm long: a round nose, a hollow curve that rises to a thin blade, flat sides
 * and sharp edges, and a ball in the hollow, which mirrors all of the studio. Our own design. It stands on y = 0, its nose to -X.
 */
import type { Vec3 } from '../math/vec3';
import { boundsOf, MATERIAL_DEFAULTS, NO_INSTANCES, type Scene, type SceneMaterial } from './scene';
import { plainGeometry } from './triangles';

interface ProfilePoint {
  x: number;
  top: number;
  bottom: number;
  /** Unit, of the top and of the bottom. */
  up: [number, number];
  down: [number, number];
}

const HALF_WIDTH = 0.032;
const NOSE = { x: -0.05, radius: 0.017 };
const HOLLOW = { x: -0.028, radius: 0.078 };
const NOSE_STEPS = 16;
const HOLLOW_STEPS = 24;
/** Where the hollow ends, degrees from straight down; the blade goes on upright. */
const HOLLOW_END_DEG = 78;
const BLADE = { top: 0.105, thick: 0.005 };

/** Touches the hollow where that rises by 26 degrees. */
const BALL_AT = (26 * Math.PI) / 180;
const BALL_RADIUS = 0.023;
const BALL = {
  x: HOLLOW.x + (HOLLOW.radius - BALL_RADIUS) * Math.sin(BALL_AT),
  y: 2 * NOSE.radius + HOLLOW.radius - (HOLLOW.radius - BALL_RADIUS) * Math.cos(BALL_AT),
  radius: BALL_RADIUS,
  rings: 32,
  segments: 64
};

/** From the nose to the blade, each with its upper and its lower edge. */
function profile(): ProfilePoint[] {
  const points: ProfilePoint[] = [];
  for (let i = 0; i <= NOSE_STEPS; i++) {
    const a = (Math.PI / 2) * (i / NOSE_STEPS);
    const [c, s] = [Math.cos(a), Math.sin(a)];
    points.push({
      x: NOSE.x - NOSE.radius * c,
      top: NOSE.radius + NOSE.radius * s,
      bottom: NOSE.radius - NOSE.radius * s,
      up: [-c, s],
      down: [-c, -s]
    });
  }
  for (let i = 0; i <= HOLLOW_STEPS; i++) {
    const a = (HOLLOW_END_DEG * Math.PI * i) / HOLLOW_STEPS / 180;
    points.push({
      x: HOLLOW.x + HOLLOW.radius * Math.sin(a),
      top: 2 * NOSE.radius + HOLLOW.radius * (1 - Math.cos(a)),
      bottom: 0,
      up: [-Math.sin(a), Math.cos(a)],
      down: [0, -1]
    });
  }
  return points;
}

export function swatchPiece(material: SceneMaterial): Scene {
  const positions: number[] = [];
  const normals: number[] = [];
  const indices: number[] = [];
  const vertex = (p: Vec3, n: Vec3) => {
    positions.push(...p);
    normals.push(...n);
    return positions.length / 3 - 1;
  };
  /** Corners counterclockwise as seen from where the normals point. */
  const quad = (corners: readonly [Vec3, Vec3][]) => {
    const [a, b, c, d] = corners.map(([p, n]) => vertex(p, n)) as [number, number, number, number];
    indices.push(a, b, c, a, c, d);
  };
  const points = profile();
  const last = points.at(-1)!;
  const [left, right] = [-HALF_WIDTH, HALF_WIDTH];
  for (let i = 0; i + 1 < points.length; i++) {
    const [p, q] = [points[i]!, points[i + 1]!];
    const up = (o: ProfilePoint): Vec3 => [...o.up, 0];
    const down = (o: ProfilePoint): Vec3 => [...o.down, 0];
    quad([
      [[p.x, p.top, right], up(p)],
      [[q.x, q.top, right], up(q)],
      [[q.x, q.top, left], up(q)],
      [[p.x, p.top, left], up(p)]
    ]);
    quad([
      [[p.x, p.bottom, left], down(p)],
      [[q.x, q.bottom, left], down(q)],
      [[q.x, q.bottom, right], down(q)],
      [[p.x, p.bottom, right], down(p)]
    ]);
    for (const [z, n] of [
      [right, 1],
      [left, -1]
    ] as const) {
      const side: [Vec3, Vec3][] = [
        [
          [p.x, p.bottom, z],
          [0, 0, n]
        ],
        [
          [q.x, q.bottom, z],
          [0, 0, n]
        ],
        [
          [q.x, q.top, z],
          [0, 0, n]
        ],
        [
          [p.x, p.top, z],
          [0, 0, n]
        ]
      ];
      quad(n > 0 ? side : side.reverse());
    }
  }
  // the blade: from the end of the hollow up, with a straight back
  const back = last.x + BLADE.thick;
  const flat = (n: Vec3, ...corners: readonly Vec3[]) => quad(corners.map((p): [Vec3, Vec3] => [p, n]));
  const { x, top } = last;
  flat([-1, 0, 0], [x, top, left], [x, top, right], [x, BLADE.top, right], [x, BLADE.top, left]);
  flat([1, 0, 0], [back, 0, right], [back, 0, left], [back, top, left], [back, top, right]);
  flat([1, 0, 0], [back, top, right], [back, top, left], [back, BLADE.top, left], [back, BLADE.top, right]);
  flat([0, 1, 0], [x, BLADE.top, right], [back, BLADE.top, right], [back, BLADE.top, left], [x, BLADE.top, left]);
  flat([0, -1, 0], [x, 0, left], [back, 0, left], [back, 0, right], [x, 0, right]);
  // in two pieces each, so that every edge has a neighbour of its length
  for (const [low, high] of [
    [0, top],
    [top, BLADE.top]
  ] as const) {
    flat([0, 0, 1], [x, low, right], [back, low, right], [back, high, right], [x, high, right]);
    flat([0, 0, -1], [back, low, left], [x, low, left], [x, high, left], [back, high, left]);
  }
  // a ball that lies in the hollow
  const { x: bx, y: by, radius } = BALL;
  const onBall = (j: number, i: number): [Vec3, Vec3] => {
    const [t, a] = [(Math.PI * j) / BALL.rings, (2 * Math.PI * i) / BALL.segments];
    const n: Vec3 = [Math.sin(t) * Math.cos(a), Math.cos(t), Math.sin(t) * Math.sin(a)];
    return [[bx + radius * n[0], by + radius * n[1], radius * n[2]], n];
  };
  for (let j = 0; j < BALL.rings; j++)
    for (let i = 0; i < BALL.segments; i++)
      quad([onBall(j, i), onBall(j, i + 1), onBall(j + 1, i + 1), onBall(j + 1, i)]);
  const geometry = plainGeometry({ positions, normals, indices });
  return {
    ...NO_INSTANCES,
    geometry,
    materials: [{ ...MATERIAL_DEFAULTS, ...material }],
    textures: [],
    lights: [],
    cameras: [],
    bounds: boundsOf(geometry.positions)
  };
}
