/** A chair and a stool: solid ash, turned legs, a bent back. */
import type { Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../mesh-builder';
import { SOLIDS } from '../textures/solids';
import type { DrawnModel } from '../write-model';

type Piece = Pick<DrawnModel, 'mesh' | 'materials'>;

const WOOD = { 'pale oak': { solid: SOLIDS.oak, roughness: 0.45, coat: { weight: 0.3, roughness: 0.35 } } };
const SEAT_M = 0.44;

export function chair(): Piece {
  const m = new MeshBuilder(51);
  legs(m, 0.19, 0.18, SEAT_M - 0.02, 0.03);
  seat(m, 0.23, 0.22);
  // two posts that lean back, and a bent rail between them
  const post = (side: number): [Vec3, Vec3] => [
    [side * 0.185, SEAT_M, 0.17],
    [side * 0.2, 0.79, 0.25]
  ];
  for (const side of [-1, 1]) m.rod('pale oak', ...post(side), 0.014, 0.011, 24);
  const bend = (t: number, y: number): Vec3 => [
    0.21 * Math.sin(t),
    y,
    0.17 + 0.075 * ((y - SEAT_M) / 0.35) + 0.09 * Math.cos(t) - 0.03
  ];
  const turns = Array.from({ length: 17 }, (_, i) => (-1.25 * Math.PI) / 3 + (i * 1.25 * Math.PI) / 24);
  strip(
    m,
    turns.map((t) => [bend(t, 0.69), bend(t, 0.8)])
  );
  strip(
    m,
    turns.map((t) => [bend(t, 0.56), bend(t, 0.6)])
  );
  return { mesh: m, materials: WOOD };
}

export function stool(): Piece {
  const m = new MeshBuilder(52);
  legs(m, 0.13, 0.13, SEAT_M, 0.05);
  m.turned(
    'pale oak',
    [0, SEAT_M, 0],
    [
      [0, 0],
      [0.165, 0],
      [0.175, 0.004],
      [0.178, 0.012],
      [0.174, 0.02],
      [0.16, 0.022],
      [0.08, 0.018],
      [0, 0.017]
    ],
    72
  );
  return { mesh: m, materials: WOOD };
}

function legs(m: MeshBuilder, x: number, z: number, top: number, splay: number): void {
  for (const sx of [-1, 1])
    for (const sz of [-1, 1])
      m.rod('pale oak', [sx * (x + splay), 0, sz * (z + splay)], [sx * x, top, sz * z], 0.011, 0.016, 24);
  const at = 0.32;
  const [rx, rz] = [x + splay * (1 - at / top), z + splay * (1 - at / top)];
  for (const side of [-1, 1]) {
    m.rod('pale oak', [side * rx, at, -rz], [side * rx, at, rz], 0.008, 0.008, 16);
    m.rod('pale oak', [-rx, at + 0.03, side * rz], [rx, at + 0.03, side * rz], 0.008, 0.008, 16);
  }
}

/** A board with its edges taken off, hollowed a little. */
function seat(m: MeshBuilder, x: number, z: number): void {
  m.box('pale oak', [-x, SEAT_M - 0.02, -z], [x, SEAT_M + 0.012, z], 0.008);
}

const THICK_M = 0.012;
/** A bent board between two lines of points. */
function strip(m: MeshBuilder, rows: readonly (readonly [Vec3, Vec3])[]): void {
  for (let i = 0; i + 1 < rows.length; i++) {
    const [[a, b], [d, c]] = [rows[i]!, rows[i + 1]!];
    const back = (p: Vec3): Vec3 => [p[0], p[1], p[2] + THICK_M];
    m.quad('pale oak', d, a, b, c);
    m.quad('pale oak', back(a), back(d), back(c), back(b));
    m.quad('pale oak', b, back(b), back(c), c);
    m.quad('pale oak', a, d, back(d), back(a));
  }
  for (const [row, way] of [
    [rows[0]!, 1],
    [rows.at(-1)!, -1]
  ] as const) {
    const [a, b] = row;
    const [p, q]: [Vec3, Vec3] = [
      [a[0], a[1], a[2] + THICK_M],
      [b[0], b[1], b[2] + THICK_M]
    ];
    if (way > 0) m.quad('pale oak', a, p, q, b);
    else m.quad('pale oak', p, a, b, q);
  }
}
