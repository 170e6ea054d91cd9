/**
 * Builds meshes of drawn models from rounded boxes, turned profiles, tubes and sheets. Metres, +Y up. Models are drawn as a
 * stage set, z running into the picture, and mirrored to glTF's right-handed frame when written. uv are metres along
 * the surface, so a material says how many metres its texture spans; the long side of a box runs along u, as the grain
 * of a board does.
 */
import type { Vec3 } from '../core/math/vec3';
import { add, cross, normalize, scale, subtract } from '../core/math/vec3';
import { createRandom, type Random } from '../core/sampling/random';

export interface MeshPart {
  material: string;
  /** What it belongs to; null where it stands by itself. */
  assembly: string | null;
  positions: number[];
  normals: number[];
  uvs: number[];
  indices: number[];
}

export interface Placement {
  at?: Vec3;
  /** Turn about +Y in radians. */
  turn?: number;
}

export class MeshBuilder {
  /** One for each material of each assembly. */
  readonly parts = new Map<string, MeshPart>();
  private assembly: string | null = null;
  readonly random: Random;

  constructor(seed: number) {
    this.random = createRandom(seed);
  }

  /** What is drawn from here on belongs to it, until the next. */
  begin(assembly: string): this {
    this.assembly = assembly;
    return this;
  }

  part(material: string): MeshPart {
    const { assembly } = this;
    const key = `${assembly ?? ''}\n${material}`;
    let part = this.parts.get(key);
    if (!part) {
      part = { material, assembly, positions: [], normals: [], uvs: [], indices: [] };
      this.parts.set(key, part);
    }
    return part;
  }

  vertex(part: MeshPart, p: Vec3, n: Vec3, u: number, v: number): number {
    part.positions.push(p[0], p[1], p[2]);
    part.normals.push(n[0], n[1], n[2]);
    part.uvs.push(u, v);
    return part.positions.length / 3 - 1;
  }

  triangle(material: string, a: Vec3, b: Vec3, c: Vec3): void {
    const part = this.part(material);
    const n = normalize(cross(subtract(b, a), subtract(c, a)));
    const i = this.vertex(part, a, n, a[0], a[2]);
    this.vertex(part, b, n, b[0], b[2]);
    this.vertex(part, c, n, c[0], c[2]);
    part.indices.push(i, i + 1, i + 2);
  }

  quad(material: string, a: Vec3, b: Vec3, c: Vec3, d: Vec3, uv: readonly [number, number] = [0, 0]): void {
    const part = this.part(material);
    const n = normalize(cross(subtract(b, a), subtract(d, a)));
    const width = Math.hypot(...subtract(b, a));
    const height = Math.hypot(...subtract(d, a));
    const i = this.vertex(part, a, n, uv[0], uv[1]);
    this.vertex(part, b, n, uv[0] + width, uv[1]);
    this.vertex(part, c, n, uv[0] + width, uv[1] + height);
    this.vertex(part, d, n, uv[0], uv[1] + height);
    part.indices.push(i, i + 1, i + 2, i, i + 2, i + 3);
  }

  /** A box from corner to corner with its edges taken off by `edge` m, about a turned axis through its middle. */
  box(material: string, low: Vec3, high: Vec3, edge = 0.002, turn = 0): void {
    const middle = scale(add(low, high), 0.5);
    const half = scale(subtract(high, low), 0.5);
    this.turnedBox(material, middle, half, [Math.cos(turn), 0, -Math.sin(turn)], [0, 1, 0], edge);
  }

  /** A box by its middle, half sizes and two of its axes. */
  turnedBox(material: string, middle: Vec3, half: Vec3, x: Vec3, y: Vec3, edge = 0.002): void {
    const part = this.part(material);
    const axes = [x, y, cross(x, y)] as const;
    const e = Math.min(edge, ...half.map((h) => h * 0.45));
    const long = half.indexOf(Math.max(...half));
    const shift: [number, number] = [this.random() * 7, this.random() * 7];
    const point = (p: readonly number[]): Vec3 =>
      add(middle, add(scale(axes[0], p[0]!), add(scale(axes[1], p[1]!), scale(axes[2], p[2]!))));
    // six faces, inset by the edge
    const corner = new Map<string, number>();
    for (let axis = 0; axis < 3; axis++) {
      const [b, c] = [(axis + 1) % 3, (axis + 2) % 3];
      for (const side of [-1, 1]) {
        const n = scale(axes[axis]!, side);
        const ids: number[] = [];
        for (const [sb, sc] of [
          [-1, -1],
          [1, -1],
          [1, 1],
          [-1, 1]
        ] as const) {
          const p = [0, 0, 0];
          p[axis] = side * half[axis]!;
          p[b] = sb * (half[b]! - e);
          p[c] = sc * (half[c]! - e);
          const alongLong = axis === long ? p[b]! : p[long]!;
          const other = axis === long ? p[c]! : p[b === long ? c : b]!;
          const id = this.vertex(part, point(p), n, alongLong + shift[0], other + shift[1] + axis * 0.37);
          ids.push(id);
          const key = [0, 0, 0];
          key[axis] = side * 2;
          key[b] = sb;
          key[c] = sc;
          corner.set(key.join(), id);
        }
        if (side > 0) part.indices.push(ids[0]!, ids[1]!, ids[2]!, ids[0]!, ids[2]!, ids[3]!);
        else part.indices.push(ids[0]!, ids[2]!, ids[1]!, ids[0]!, ids[3]!, ids[2]!);
      }
    }
    // twelve chamfers share the faces' vertices, so the edge is shaded round
    const face = (axis: number, side: number, other: number, s: number, third: number, t: number) => {
      const key = [0, 0, 0];
      key[axis] = side * 2;
      key[other] = s;
      key[third] = t;
      return corner.get(key.join())!;
    };
    for (let axis = 0; axis < 3; axis++) {
      const b = (axis + 1) % 3;
      const c = (axis + 2) % 3;
      for (const sa of [-1, 1]) {
        for (const sb of [-1, 1]) {
          // chamfer between the faces sa of axis and sb of b, running along c
          const p0 = face(axis, sa, b, sb, c, -1);
          const p1 = face(axis, sa, b, sb, c, 1);
          const q0 = face(b, sb, axis, sa, c, -1);
          const q1 = face(b, sb, axis, sa, c, 1);
          if (sa * sb > 0) part.indices.push(p0, q0, q1, p0, q1, p1);
          else part.indices.push(p0, q1, q0, p0, p1, q1);
        }
      }
    }
    for (const sx of [-1, 1])
      for (const sy of [-1, 1])
        for (const sz of [-1, 1]) {
          const a = face(0, sx, 1, sy, 2, sz);
          const b = face(1, sy, 0, sx, 2, sz);
          const c = face(2, sz, 0, sx, 1, sy);
          if (sx * sy * sz > 0) part.indices.push(a, b, c);
          else part.indices.push(a, c, b);
        }
  }

  /**
   * A profile of [radius, height] turned about a vertical axis through `at`; smooth except at the corners marked by a
   * repeated point.
   */
  turned(material: string, at: Vec3, profile: readonly (readonly [number, number])[], segments = 48): void {
    this.turnedAlong(material, at, [0, 1, 0], profile, segments);
  }

  turnedAlong(
    material: string,
    at: Vec3,
    axis: Vec3,
    profile: readonly (readonly [number, number])[],
    segments = 48
  ): void {
    const part = this.part(material);
    const side: Vec3 = Math.abs(axis[1]) > 0.9 ? [1, 0, 0] : [0, 1, 0];
    const right = normalize(cross(side, axis));
    const front = cross(axis, right);
    const runs: (readonly [number, number])[][] = [[]];
    for (let i = 0; i < profile.length; i++) {
      runs[runs.length - 1]!.push(profile[i]!);
      const next = profile[i + 1];
      if (next && next[0] === profile[i]![0] && next[1] === profile[i]![1]) runs.push([]);
    }
    for (const run of runs) {
      let along = 0;
      const rows: number[][] = [];
      for (let i = 0; i < run.length; i++) {
        const [r, h] = run[i]!;
        const before = run[Math.max(0, i - 1)]!;
        const after = run[Math.min(run.length - 1, i + 1)]!;
        if (i > 0) along += Math.hypot(r - before[0], h - before[1]);
        const dr = after[0] - before[0];
        const dh = after[1] - before[1];
        const size = Math.hypot(dr, dh) || 1;
        const row: number[] = [];
        for (let s = 0; s <= segments; s++) {
          const a = (2 * Math.PI * s) / segments;
          const out = add(scale(right, Math.cos(a)), scale(front, Math.sin(a)));
          const n = normalize(add(scale(out, dh / size), scale(axis, -dr / size)));
          row.push(this.vertex(part, add(at, add(scale(out, r), scale(axis, h))), n, a * Math.max(r, 0.02), along));
        }
        rows.push(row);
      }
      for (let i = 0; i + 1 < rows.length; i++) {
        for (let s = 0; s < segments; s++) {
          const [a, b, c, d] = [rows[i]![s]!, rows[i]![s + 1]!, rows[i + 1]![s + 1]!, rows[i + 1]![s]!];
          part.indices.push(a, b, c, a, c, d);
        }
      }
    }
  }

  /** A rod between two points, round, with flat ends. */
  rod(material: string, from: Vec3, to: Vec3, r0: number, r1 = r0, segments = 20): void {
    const way = subtract(to, from);
    const length = Math.hypot(...way);
    this.turnedAlong(
      material,
      from,
      scale(way, 1 / length),
      [
        [0, 0],
        [r0, 0],
        [r0, 0],
        [r1, length],
        [r1, length],
        [0, length]
      ],
      segments
    );
  }

  sphere(material: string, at: Vec3, radius: number, rings = 32, segments = 64, uvOfGlobe = false): void {
    const part = this.part(material);
    const first = part.positions.length / 3;
    for (let j = 0; j <= rings; j++) {
      const t = (Math.PI * j) / rings;
      for (let i = 0; i <= segments; i++) {
        const p = (2 * Math.PI * i) / segments;
        const n: Vec3 = [Math.sin(t) * Math.cos(p), Math.cos(t), Math.sin(t) * Math.sin(p)];
        this.vertex(
          part,
          add(at, scale(n, radius)),
          n,
          uvOfGlobe ? i / segments : p * radius,
          uvOfGlobe ? j / rings : t * radius
        );
      }
    }
    const row = segments + 1;
    for (let j = 0; j < rings; j++) {
      for (let i = 0; i < segments; i++) {
        const a = first + j * row + i;
        if (j > 0) part.indices.push(a, a + 1, a + row + 1);
        if (j < rings - 1) part.indices.push(a, a + row + 1, a + row);
      }
    }
  }

  /** A ring of round section about an axis. */
  ring(
    material: string,
    at: Vec3,
    direction: Vec3,
    radius: number,
    thickness: number,
    segments = 96,
    around = 14
  ): void {
    const axis = normalize(direction);
    const part = this.part(material);
    const right = normalize(cross(Math.abs(axis[1]) > 0.9 ? [1, 0, 0] : [0, 1, 0], axis));
    const front = cross(axis, right);
    const first = part.positions.length / 3;
    for (let i = 0; i <= segments; i++) {
      const a = (2 * Math.PI * i) / segments;
      const out = add(scale(right, Math.cos(a)), scale(front, Math.sin(a)));
      for (let j = 0; j <= around; j++) {
        const b = (2 * Math.PI * j) / around;
        const n = add(scale(out, Math.cos(b)), scale(axis, Math.sin(b)));
        this.vertex(part, add(at, add(scale(out, radius), scale(n, thickness))), n, a * radius, b * thickness);
      }
    }
    const row = around + 1;
    for (let i = 0; i < segments; i++) {
      for (let j = 0; j < around; j++) {
        const a = first + i * row + j;
        part.indices.push(a, a + row, a + row + 1, a, a + row + 1, a + 1);
      }
    }
  }

  /** A height field y = height(x, z) over a rectangle, smooth. */
  terrain(
    material: string,
    x0: number,
    x1: number,
    z0: number,
    z1: number,
    nx: number,
    nz: number,
    height: (x: number, z: number) => number
  ): void {
    const part = this.part(material);
    const first = part.positions.length / 3;
    const d = 0.05;
    for (let j = 0; j <= nz; j++) {
      for (let i = 0; i <= nx; i++) {
        const x = x0 + ((x1 - x0) * i) / nx;
        const z = z0 + ((z1 - z0) * j) / nz;
        const n = normalize([height(x - d, z) - height(x + d, z), 2 * d, height(x, z - d) - height(x, z + d)]);
        this.vertex(part, [x, height(x, z), z], n, x, z);
      }
    }
    const row = nx + 1;
    for (let j = 0; j < nz; j++) {
      for (let i = 0; i < nx; i++) {
        const a = first + j * row + i;
        part.indices.push(a, a + row + 1, a + 1, a, a + row, a + row + 1);
      }
    }
  }

  /** A smooth sheet through the points `at(u, v)`, u and v from 0 to 1; `size` m along both for its texture. */
  sheet(
    material: string,
    nu: number,
    nv: number,
    at: (u: number, v: number) => Vec3,
    size: readonly [number, number] = [1, 1]
  ): void {
    const part = this.part(material);
    const first = part.positions.length / 3;
    const d = 1e-3;
    for (let j = 0; j <= nv; j++)
      for (let i = 0; i <= nu; i++) {
        const [u, v] = [i / nu, j / nv];
        const along = subtract(at(u + d, v), at(u - d, v));
        const across = subtract(at(u, v + d), at(u, v - d));
        this.vertex(part, at(u, v), normalize(cross(along, across)), u * size[0], v * size[1]);
      }
    const row = nu + 1;
    for (let j = 0; j < nv; j++)
      for (let i = 0; i < nu; i++) {
        const a = first + j * row + i;
        part.indices.push(a, a + 1, a + row + 1, a, a + row + 1, a + row);
      }
  }

  /** Draws all of another once more in here, turned about its upright by `turn` radians and moved. */
  place(drawn: MeshBuilder, at: Vec3, turn = 0): this {
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const turned = (of: readonly number[], i: number): Vec3 => [
      of[i]! * c + of[i + 2]! * s,
      of[i + 1]!,
      of[i + 2]! * c - of[i]! * s
    ];
    for (const source of drawn.parts.values()) {
      const part = this.part(source.material);
      const first = part.positions.length / 3;
      for (let i = 0; i < source.positions.length; i += 3) {
        const [u, v] = [source.uvs[(i / 3) * 2]!, source.uvs[(i / 3) * 2 + 1]!];
        this.vertex(part, add(at, turned(source.positions, i)), turned(source.normals, i), u, v);
      }
      for (const index of source.indices) part.indices.push(first + index);
    }
    return this;
  }

  /** Gives what is of one material another name for it. */
  rename(material: string, name: string): this {
    for (const part of this.parts.values()) if (part.material === material) part.material = name;
    return this;
  }

  /** Makes everything drawn so far larger, about the origin; textures keep their size. */
  grow(factor: number): this {
    for (const part of this.parts.values()) {
      for (let i = 0; i < part.positions.length; i++) part.positions[i]! *= factor;
      for (let i = 0; i < part.uvs.length; i++) part.uvs[i]! *= factor;
    }
    return this;
  }

  get triangles(): number {
    let n = 0;
    for (const part of this.parts.values()) n += part.indices.length / 3;
    return n;
  }
}
