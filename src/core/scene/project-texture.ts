/**
 * Texture coordinates for parts that have none: metres from six sides, from one, or around an axis, in the part's own
 * coordinates, so that a picture stays on a part that is turned. Vertices that two sides share are doubled.
 */
import type { Affine } from '../math/affine';
import { cross, dot, length, normalize, subtract, type Vec3 } from '../math/vec3';
import type { Scene, SceneGeometry } from './scene';
import { worldParts } from './scene';
import { joinGeometries, takeTriangles } from './triangles';

export interface Projection {
  projection: 'box' | 'planar' | 'cylinder' | 'file';
  axis: 'x' | 'y' | 'z';
  /** Counterclockwise. */
  turn_deg: number;
  /** Whether a normal map needs the direction of u at each vertex. */
  tangents: boolean;
}

/** By material; of materials that have none nothing changes. `ofMaterial` gives null for those. */
export function projectTextures<T extends Scene>(scene: T, ofMaterial: (material: number) => Projection | null): T {
  const projections = scene.materials.map((_, m) => ofMaterial(m));
  if (projections.every((p) => p === null || (p.projection === 'file' && !p.tangents))) return scene;
  const matrices = new Map<number, Affine>();
  for (const { object, matrix } of scene.instances) if (!matrices.has(object)) matrices.set(object, matrix);
  const objects = scene.objects.map((object, i) => {
    const matrix = matrices.get(i);
    return matrix ? projected(object, projections, scaleOf(matrix)) : object;
  });
  const parts = worldParts(scene);
  const pieces = parts.map(({ first, matrix }, i) => {
    const end = parts[i + 1]?.first ?? scene.geometry.triangleMaterials.length;
    const range = Uint32Array.from({ length: end - first }, (_, t) => first + t);
    const piece = takeTriangles(scene.geometry, range);
    return projected(piece, projections, partFrame(matrix));
  });
  // triangles keep their order, so parts begin where they did
  return { ...scene, objects, geometry: pieces.length > 0 ? joinGeometries(pieces) : scene.geometry };
}

/** From the coordinates of a geometry to metres of its part, and back for directions. */
interface Frame {
  point: (p: Vec3) => Vec3;
  direction: (d: Vec3) => Vec3;
  back: (d: Vec3) => Vec3;
}

/** Of an object that stands somewhere: its own coordinates, made as large as it stands. */
function scaleOf(matrix: Affine): Frame {
  const [x, y, z] = [0, 1, 2].map((k) => Math.hypot(matrix[k * 3]!, matrix[k * 3 + 1]!, matrix[k * 3 + 2]!)) as [
    number,
    number,
    number
  ];
  return {
    point: (p) => [p[0] * x, p[1] * y, p[2] * z],
    direction: (d) => normalize([d[0] / x, d[1] / y, d[2] / z]),
    back: (d) => normalize([d[0] / x, d[1] / y, d[2] / z])
  };
}

/** Of a part of the world's geometry: its axes, without its scaling. */
function partFrame(matrix: Affine): Frame {
  const axes = [0, 1, 2].map((k) => normalize([matrix[k * 3]!, matrix[k * 3 + 1]!, matrix[k * 3 + 2]!])) as unknown as [
    Vec3,
    Vec3,
    Vec3
  ];
  const from: Vec3 = [matrix[9], matrix[10], matrix[11]];
  const into = (d: Vec3): Vec3 => [dot(axes[0], d), dot(axes[1], d), dot(axes[2], d)];
  return {
    point: (p) => into(subtract(p, from)),
    direction: into,
    back: (d) => [0, 1, 2].map((k) => axes[0][k]! * d[0] + axes[1][k]! * d[1] + axes[2][k]! * d[2]) as unknown as Vec3
  };
}

/** The two directions of a picture on each of the sides: u to the right and v up as one looks at them. */
const SIDES: readonly (readonly [u: Vec3, v: Vec3])[] = [
  [
    [0, 0, -1],
    [0, 1, 0]
  ],
  [
    [0, 0, 1],
    [0, 1, 0]
  ],
  [
    [1, 0, 0],
    [0, 0, -1]
  ],
  [
    [1, 0, 0],
    [0, 0, 1]
  ],
  [
    [1, 0, 0],
    [0, 1, 0]
  ],
  [
    [-1, 0, 0],
    [0, 1, 0]
  ]
];

/** 0 to 5: towards x, against x, towards y and so on. */
function sideOf(n: Vec3): number {
  const most = [0, 1, 2].reduce((a, b) => (Math.abs(n[b]!) > Math.abs(n[a]!) + 1e-4 ? b : a), 0);
  return most * 2 + (n[most]! < 0 ? 1 : 0);
}

function projected(geometry: SceneGeometry, projections: readonly (Projection | null)[], frame: Frame): SceneGeometry {
  if (!geometry.triangleMaterials.some((m) => projections[m])) return geometry;
  // what is not touched keeps its vertices; what is gets its own, in the same order of triangles
  const out = new Builder(geometry);
  for (let t = 0; t < geometry.triangleMaterials.length; t++) {
    const projection = projections[geometry.triangleMaterials[t]!];
    if (projection) out.project(t, projection, frame);
    else out.keep(t);
  }
  return out.done();
}

class Builder {
  private readonly names = new Map<string, number>();
  /** Of vertices that keep what they have. */
  private readonly kept: Int32Array;
  private readonly from: number[] = [];
  private readonly uv: (readonly [number, number] | null)[] = [];
  private readonly tangent: (readonly [number, number, number, number] | null)[] = [];
  private readonly indices: Uint32Array;
  private readonly radii = new Map<Projection['axis'], number>();

  constructor(private readonly geometry: SceneGeometry) {
    this.indices = new Uint32Array(geometry.indices.length);
    this.kept = new Int32Array(geometry.positions.length / 3).fill(-1);
  }

  keep(t: number): void {
    for (let k = 0; k < 3; k++) {
      const vertex = this.geometry.indices[t * 3 + k]!;
      if (this.kept[vertex]! < 0) this.kept[vertex] = this.put(vertex, null, null);
      this.indices[t * 3 + k] = this.kept[vertex]!;
    }
  }

  project(t: number, { projection, axis, turn_deg, tangents }: Projection, frame: Frame): void {
    const corners = [0, 1, 2].map((k) => this.geometry.indices[t * 3 + k]!);
    if (projection === 'file') {
      if (!tangents || !this.findTangents(t, corners)) this.keep(t);
      return;
    }
    const places = corners.map((v) => frame.point(at(this.geometry.positions, v)));
    const face = normalize(cross(subtract(places[1]!, places[0]!), subtract(places[2]!, places[0]!)));
    const mean = normalize(
      corners.reduce<Vec3>((sum, v) => addTo(sum, frame.direction(at(this.geometry.normals, v))), [0, 0, 0])
    );
    const outward: Vec3 = length(mean) > 0 ? mean : face;
    const [c, s] = [Math.cos((turn_deg * Math.PI) / 180), Math.sin((turn_deg * Math.PI) / 180)];
    const turned = ([u, v]: readonly [number, number]): [number, number] => [c * u + s * v, -s * u + c * v];
    if (projection === 'cylinder') {
      const around = places.map((p) => cylinder(p, axis));
      // a triangle over the seam goes on beyond it
      const middle = around[0]!.angle;
      const radius = this.radiusAbout(axis, frame);
      corners.forEach((vertex, k) => {
        let { angle } = around[k]!;
        if (angle - middle > Math.PI) angle -= 2 * Math.PI;
        if (angle - middle < -Math.PI) angle += 2 * Math.PI;
        const uv = turned([angle * radius, around[k]!.height]);
        const along = turnedAxis(around[k]!.tangent, around[k]!.up, c, s);
        this.set(t, k, vertex, uv, tangents ? this.tangentOf(vertex, along, cross(outward, along), frame) : null);
      });
      return;
    }
    const side = projection === 'box' ? sideOf(outward) : 'xyz'.indexOf(axis) * 2;
    const [u, v] = SIDES[side]!;
    corners.forEach((vertex, k) => {
      const uv = turned([dot(places[k]!, u), dot(places[k]!, v)]);
      const along = turnedAxis(u, v, c, s);
      const up = turnedAxis(v, [-u[0], -u[1], -u[2]], c, s);
      this.set(t, k, vertex, uv, tangents ? this.tangentOf(vertex, along, up, frame) : null);
    });
  }

  /** The largest: a picture is as wide as it says where it is widest, and not sheared elsewhere. */
  private radiusAbout(axis: Projection['axis'], frame: Frame): number {
    let known = this.radii.get(axis);
    if (known === undefined) {
      known = 0;
      const { positions } = this.geometry;
      for (let v = 0; v < positions.length / 3; v++)
        known = Math.max(known, cylinder(frame.point(at(positions, v)), axis).radius);
      this.radii.set(axis, known);
    }
    return known;
  }

  done(): SceneGeometry {
    const { geometry } = this;
    const pick = (values: Float32Array | Uint16Array, n: number, to: Float32Array | Uint16Array) => {
      this.from.forEach((vertex, i) => {
        for (let k = 0; k < n; k++) to[i * n + k] = values[vertex * n + k]!;
      });
    };
    const count = this.from.length;
    const out = {
      positions: new Float32Array(count * 3),
      normals: new Float32Array(count * 3),
      tangents: new Float32Array(count * 4),
      uv0: new Float32Array(count * 2),
      uv1: new Float32Array(count * 2),
      colors: new Uint16Array(count * 4)
    };
    pick(geometry.positions, 3, out.positions);
    pick(geometry.normals, 3, out.normals);
    pick(geometry.tangents, 4, out.tangents);
    pick(geometry.uv0, 2, out.uv0);
    pick(geometry.uv1, 2, out.uv1);
    pick(geometry.colors, 4, out.colors);
    this.uv.forEach((uv, i) => {
      if (uv) out.uv1.set(uv, i * 2);
    });
    this.tangent.forEach((tangent, i) => {
      if (tangent) out.tangents.set(tangent, i * 4);
    });
    return { ...out, indices: this.indices, triangleMaterials: geometry.triangleMaterials };
  }

  /** Directions of u from the file's own coordinates (Lengyel 2001); false where vertices have them, or no room. */
  private findTangents(t: number, corners: number[]): boolean {
    const { positions, uv0, tangents: own } = this.geometry;
    const has = corners.every((v) => own[v * 4] || own[v * 4 + 1] || own[v * 4 + 2]);
    if (has) return false;
    const [a, b, c] = corners.map((v) => at(positions, v)) as [Vec3, Vec3, Vec3];
    const [e, f] = [subtract(b, a), subtract(c, a)];
    const uv = corners.map((v) => [uv0[v * 2]!, uv0[v * 2 + 1]!] as const);
    const [p, q] = [uv[1]![0] - uv[0]![0], uv[1]![1] - uv[0]![1]];
    const [r, w] = [uv[2]![0] - uv[0]![0], uv[2]![1] - uv[0]![1]];
    const k = p * w - r * q;
    if (Math.abs(k) < 1e-20) return false;
    const along = [0, 1, 2].map((i) => (e[i]! * w - f[i]! * q) / k) as unknown as Vec3;
    const down = [0, 1, 2].map((i) => (f[i]! * p - e[i]! * r) / k) as unknown as Vec3;
    corners.forEach((vertex, i) => {
      const up: Vec3 = [-down[0], -down[1], -down[2]];
      this.set(t, i, vertex, null, this.tangentOf(vertex, along, up, null));
    });
    return true;
  }

  private tangentOf(vertex: number, along: Vec3, up: Vec3, frame: Frame | null): [number, number, number, number] {
    const normal = at(this.geometry.normals, vertex);
    const [u, v] = frame ? [frame.back(along), frame.back(up)] : [along, up];
    const flat = subtract(u, [0, 1, 2].map((k) => normal[k]! * dot(u, normal)) as unknown as Vec3);
    const tangent = normalize(flat);
    return [...tangent, dot(cross(normal, tangent), v) < 0 ? -1 : 1];
  }

  private set(
    t: number,
    corner: number,
    vertex: number,
    uv: readonly [number, number] | null,
    tangent: readonly [number, number, number, number] | null
  ): void {
    const key = [uv, tangent].map((values) => values?.map((v) => Math.round(v * 1e5)).join(',') ?? '').join(';');
    this.indices[t * 3 + corner] = this.vertex(vertex, key, uv, tangent);
  }

  private vertex(
    vertex: number,
    key: string,
    uv: readonly [number, number] | null,
    tangent: readonly [number, number, number, number] | null
  ): number {
    const full = `${vertex} ${key}`;
    const made = this.names.get(full) ?? this.put(vertex, uv, tangent);
    this.names.set(full, made);
    return made;
  }

  private put(
    vertex: number,
    uv: readonly [number, number] | null,
    tangent: readonly [number, number, number, number] | null
  ): number {
    this.uv.push(uv);
    this.tangent.push(tangent);
    return this.from.push(vertex) - 1;
  }
}

const at = (values: Float32Array, vertex: number): Vec3 => [
  values[vertex * 3]!,
  values[vertex * 3 + 1]!,
  values[vertex * 3 + 2]!
];
const addTo = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/** `u` turned counterclockwise towards `v`. */
const turnedAxis = (u: Vec3, v: Vec3, c: number, s: number): Vec3 =>
  [0, 1, 2].map((k) => c * u[k]! + s * v[k]!) as unknown as Vec3;

/** Around an axis: the angle runs to the right as one looks from outside. */
function cylinder(p: Vec3, axis: 'x' | 'y' | 'z') {
  const up = 'xyz'.indexOf(axis);
  const [a, b] = [(up + 1) % 3, (up + 2) % 3];
  // counterclockwise seen along the axis from its end, which from outside is to the right
  const angle = Math.atan2(p[b]!, p[a]!);
  const unit = (k: number): Vec3 => [0, 1, 2].map((i) => (i === k ? 1 : 0)) as unknown as Vec3;
  const [ua, ub] = [unit(a), unit(b)];
  const tangent = [0, 1, 2].map((k) => -Math.sin(angle) * ua[k]! + Math.cos(angle) * ub[k]!) as unknown as Vec3;
  return { angle, radius: Math.hypot(p[a]!, p[b]!), height: p[up]!, tangent, up: unit(up) };
}
