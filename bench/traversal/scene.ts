/**
 * The bench's room: about 690,000 triangles with everything that is hard for a BVH: big walls, dense cushions, slats,
 * rods, leaves. Seeded; metres.
 */
import type { Vec3 } from '../../src/core/math/vec3';
import { createRandom } from '../../src/core/sampling/random';

export interface Triangles {
  positions: Float32Array;
  indices: Uint32Array;
}

export function benchRoom(): Triangles {
  const random = createRandom(1);
  const positions: number[] = [];
  const indices: number[] = [];
  const vertex = (p: Vec3) => positions.push(...p) / 3 - 1;
  const quad = (a: Vec3, b: Vec3, c: Vec3, d: Vec3) => {
    const [i, j, k, l] = [a, b, c, d].map(vertex) as [number, number, number, number];
    indices.push(i, j, k, i, k, l);
  };
  const grid = (nu: number, nv: number, at: (u: number, v: number) => Vec3) => {
    const first = positions.length / 3;
    for (let j = 0; j <= nv; j++) for (let i = 0; i <= nu; i++) vertex(at(i / nu, j / nv));
    for (let j = 0; j < nv; j++)
      for (let i = 0; i < nu; i++) {
        const a = first + j * (nu + 1) + i;
        indices.push(a, a + 1, a + nu + 2, a, a + nu + 2, a + nu + 1);
      }
  };
  const [x1, y1, z1] = [6, 3, 5];
  // shell with a window in the wall x = 6
  quad([0, 0, 0], [x1, 0, 0], [x1, 0, z1], [0, 0, z1]);
  quad([0, y1, 0], [0, y1, z1], [x1, y1, z1], [x1, y1, 0]);
  quad([0, 0, 0], [0, y1, 0], [x1, y1, 0], [x1, 0, 0]);
  quad([0, 0, z1], [x1, 0, z1], [x1, y1, z1], [0, y1, z1]);
  quad([0, 0, 0], [0, 0, z1], [0, y1, z1], [0, y1, 0]);
  quad([x1, 0, 0], [x1, 0, z1], [x1, 0.8, z1], [x1, 0.8, 0]);
  quad([x1, 2.4, 0], [x1, 2.4, z1], [x1, y1, z1], [x1, y1, 0]);
  quad([x1, 0.8, 0], [x1, 0.8, 1], [x1, 2.4, 1], [x1, 2.4, 0]);
  quad([x1, 0.8, 4], [x1, 0.8, z1], [x1, 2.4, z1], [x1, 2.4, 4]);
  quad([x1, -0.1, -20], [46, -0.1, -20], [46, -0.1, 25], [x1, -0.1, 25]);

  const ball = (c: Vec3, r: number, n: number, bump = 0) =>
    grid(2 * n, n, (u, v) => {
      const p = u * 2 * Math.PI;
      const t = v * Math.PI;
      const k = r * (1 + bump * Math.sin(9 * p) * Math.sin(7 * t));
      return [c[0] + k * Math.sin(t) * Math.cos(p), c[1] + k * Math.cos(t), c[2] + k * Math.sin(t) * Math.sin(p)];
    });
  const torus = (c: Vec3, big: number, small: number, n: number, tilt: number) =>
    grid(2 * n, n, (u, v) => {
      const p = u * 2 * Math.PI;
      const q = v * 2 * Math.PI;
      const [x, z, y] = [
        (big + small * Math.cos(q)) * Math.cos(p),
        (big + small * Math.cos(q)) * Math.sin(p),
        small * Math.sin(q)
      ];
      return [c[0] + x, c[1] + y * Math.cos(tilt) - z * Math.sin(tilt), c[2] + y * Math.sin(tilt) + z * Math.cos(tilt)];
    });
  const cushion = (c: Vec3, half: Vec3, n: number, bulge: number, turn = 0) => {
    for (let face = 0; face < 6; face++)
      grid(n, n, (u, v) => {
        const a = 2 * u - 1;
        const b = 2 * v - 1;
        const p: Vec3 =
          face === 0
            ? [a, b, 1]
            : face === 1
              ? [b, a, -1]
              : face === 2
                ? [1, a, b]
                : face === 3
                  ? [-1, b, a]
                  : face === 4
                    ? [b, 1, a]
                    : [a, -1, b];
        const k =
          1 +
          bulge *
            Math.max(0, 1 - Math.max(Math.abs(a), Math.abs(b)) ** 6) *
            (Math.sin(11 * p[0] + 3 * p[1]) * Math.cos(9 * p[2]) + 0.3 * Math.sin(40 * p[1] + 31 * p[0]));
        const [x, z] = [p[0] * half[0] * k, p[2] * half[2] * k];
        return [
          c[0] + x * Math.cos(turn) - z * Math.sin(turn),
          c[1] + p[1] * half[1] * k,
          c[2] + x * Math.sin(turn) + z * Math.cos(turn)
        ];
      });
  };
  cushion([1.2, 0.35, 2.5], [0.5, 0.3, 1.1], 90, 0.03, 0.05);
  cushion([0.5, 0.75, 2.5], [0.15, 0.45, 1.1], 90, 0.03, 0.05);
  cushion([1.2, 0.5, 1.2], [0.45, 0.3, 0.15], 40, 0.02, 0.1);
  cushion([1.2, 0.5, 3.8], [0.45, 0.3, 0.15], 40, 0.02, -0.1);
  cushion([2.9, 0.42, 2.5], [0.55, 0.03, 0.4], 24, 0, 0.3);
  cushion([4.5, 0.9, 0.3], [0.8, 0.9, 0.25], 10, 0);
  cushion([0.9, 0.8, 2], [0.08, 0.25, 0.25], 50, 0.08, 0.4);
  cushion([0.9, 0.8, 3], [0.08, 0.25, 0.25], 50, 0.08, -0.4);
  ball([2.8, 0.57, 2.4], 0.12, 64, 0.05);
  ball([3.05, 0.52, 2.6], 0.07, 48);
  ball([4.4, 1.95, 0.3], 0.15, 64, 0.1);
  ball([3, 2.3, 2.5], 0.25, 60, 0.02);
  torus([4.2, 0.25, 4.1], 0.4, 0.22, 100, 0.1);
  torus([4.2, 0.62, 4.1], 0.3, 0.15, 80, 0.3);
  torus([2.7, 0.47, 2.7], 0.1, 0.02, 50, 1.2);
  grid(150, 150, (u, v) => [
    2 + 2 * u,
    0.015 + 0.012 * Math.sin(519 * u) * Math.cos(573 * v) + 0.006 * random(),
    1.5 + 2 * v
  ]);
  for (let i = 0; i < 40; i++) {
    const y = 0.8 + (1.6 * i) / 40;
    quad([x1 - 0.1, y, 1], [x1 - 0.06, y + 0.022, 1], [x1 - 0.06, y + 0.022, 4], [x1 - 0.1, y, 4]);
  }
  for (let i = 0; i < 600; i++) {
    const [ax, az] = [0.3 + 5 * random(), 0.2 + random()];
    const [bx, bz] = [ax + 0.8 * (random() - 0.5), az + 0.8 * (random() - 0.5) + 0.1];
    const r = 0.0015 + 0.002 * random();
    const ay = 2.95 - 0.6 * random();
    const by = ay - 1.5 * random();
    const around = [
      [r, 0],
      [-r / 2, r * 0.87],
      [-r / 2, -r * 0.87]
    ] as const;
    around.forEach((p, k) => {
      const q = around[(k + 1) % 3]!;
      quad(
        [ax + p[0], ay, az + p[1]],
        [ax + q[0], ay, az + q[1]],
        [bx + q[0], by, bz + q[1]],
        [bx + p[0], by, bz + p[1]]
      );
    });
  }
  const leaf = (x: number, y: number, z: number, size: number) => {
    const turn = random() * 6.283;
    const tilt = (random() - 0.3) * 1.5;
    const d: Vec3 = [Math.cos(turn) * Math.cos(tilt), Math.sin(tilt), Math.sin(turn) * Math.cos(tilt)];
    const w: Vec3 = [-Math.sin(turn), (random() - 0.5) * 0.5, Math.cos(turn)];
    const at = (u: number, v: number, droop: number) =>
      vertex([
        x + (d[0] * u + w[0] * v) * size,
        y + (d[1] * u + w[1] * v - droop) * size,
        z + (d[2] * u + w[2] * v) * size
      ]);
    const [a, b, c, m, t] = [at(0, 0, 0), at(0.45, 0.22, 0.02), at(0.45, -0.22, 0.02), at(0.5, 0, 0), at(1, 0, 0.2)];
    indices.push(a, m, b, a, c, m, b, m, t, c, t, m);
  };
  const bush = (c: Vec3, r: number, leaves: number, size: number) => {
    for (let i = 0; i < leaves; i++) {
      let p: Vec3;
      do p = [2 * random() - 1, 2 * random() - 1, 2 * random() - 1];
      while (p[0] ** 2 + p[1] ** 2 + p[2] ** 2 > 1);
      leaf(c[0] + p[0] * r, c[1] + p[1] * r * 1.2, c[2] + p[2] * r, size * (0.6 + 0.8 * random()));
    }
  };
  bush([5.2, 1.1, 0.9], 0.45, 9000, 0.07);
  bush([5.3, 1, 4.4], 0.4, 7000, 0.05);
  bush([0.6, 1.3, 0.6], 0.4, 6000, 0.06);
  bush([2.9, 0.8, 2.5], 0.2, 2500, 0.035);
  for (let i = 0; i < 9; i++) bush([9 + random(), 0.8, -1 + i * 0.9], 0.9, 3000, 0.1);
  return { positions: Float32Array.from(positions), indices: Uint32Array.from(indices) };
}
