/** Books, a cup and a bowl. */
import type { Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../mesh-builder';
import type { DrawnMaterial, DrawnModel } from '../write-model';

type Piece = Pick<DrawnModel, 'mesh' | 'materials'>;

const COVERS: readonly Vec3[] = [
  [0.32, 0.06, 0.05],
  [0.05, 0.12, 0.22],
  [0.42, 0.33, 0.16],
  [0.07, 0.17, 0.12],
  [0.55, 0.53, 0.48],
  [0.1, 0.09, 0.1]
];
const BOOKS: Record<string, DrawnMaterial> = {
  paper: { color: [0.72, 0.69, 0.6], roughness: 0.9 },
  ...Object.fromEntries(
    COVERS.map((color, i) => [`book cloth ${i + 1}`, { color, roughness: 0.75, sheen: { color, roughness: 0.5 } }])
  )
};

interface Book {
  cover: string;
  /** Along the spine, from spine to edge, over the covers. */
  size: readonly [number, number, number];
}

/** Two covers, a spine, and the block of pages a little within them; `axes` are those of the book. */
function book(
  m: MeshBuilder,
  { cover, size: [tall, deep, thick] }: Book,
  middle: Vec3,
  axes: [Vec3, Vec3, Vec3]
): void {
  const [up, out, over] = axes;
  const at = (a: number, b: number, c: number): Vec3 =>
    [0, 1, 2].map((k) => middle[k]! + a * up[k]! + b * out[k]! + c * over[k]!) as unknown as Vec3;
  const board = 0.0025;
  const box = (material: string, centre: Vec3, half: Vec3, edge: number) =>
    m.turnedBox(material, centre, half, up, out, edge);
  for (const side of [-1, 1])
    box(cover, at(0, 0, side * (thick / 2 - board / 2)), [tall / 2, deep / 2, board / 2], 0.0008);
  box(cover, at(0, -deep / 2 + board / 2, 0), [tall / 2, board / 2, thick / 2 - board], 0.0006);
  box('paper', at(0, -0.0015, 0), [tall / 2 - 0.004, deep / 2 - 0.0045, thick / 2 - board], 0.0004);
}

const made = (m: MeshBuilder, i: number): Book => ({
  cover: `book cloth ${1 + ((i * 5 + Math.floor(m.random() * 2)) % COVERS.length)}`,
  size: [0.19 + 0.07 * m.random(), 0.13 + 0.05 * m.random(), 0.016 + 0.024 * m.random()]
});

export function books(): Piece {
  const m = new MeshBuilder(61);
  let y = 0;
  for (let i = 0; i < 5; i++) {
    const one = made(m, i);
    const a = (m.random() - 0.5) * 0.5;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    book(
      m,
      one,
      [0.01 * (m.random() - 0.5), y + one.size[2] / 2, 0.01 * (m.random() - 0.5)],
      [
        [c, 0, s],
        [s, 0, -c],
        [0, 1, 0]
      ]
    );
    y += one.size[2];
  }
  return { mesh: m, materials: BOOKS };
}

export function rowOfBooks(): Piece {
  const m = new MeshBuilder(62);
  let x = -0.3;
  for (let i = 0; x < 0.26; i++) {
    const one = made(m, i);
    x += one.size[2] + 0.0008;
    book(
      m,
      one,
      [x - one.size[2] / 2, one.size[0] / 2, one.size[1] / 2 + 0.004 * m.random()],
      [
        [0, 1, 0],
        [0, 0, 1],
        [1, 0, 0]
      ]
    );
  }
  return { mesh: m, materials: BOOKS };
}

const GLAZED: DrawnMaterial = { color: [0.62, 0.6, 0.55], roughness: 0.3, coat: { weight: 0.8, roughness: 0.08 } };

export function cup(): Piece {
  const m = new MeshBuilder(63);
  m.turned(
    'glazed stoneware',
    [0, 0, 0],
    [
      [0, 0.002],
      [0.022, 0.002],
      [0.022, 0],
      [0.026, 0],
      [0.028, 0.004],
      [0.036, 0.02],
      [0.04, 0.05],
      [0.0405, 0.079],
      [0.0395, 0.0805],
      [0.0385, 0.079],
      [0.038, 0.05],
      [0.034, 0.022],
      [0.024, 0.008],
      [0, 0.007]
    ],
    72
  );
  m.turned(
    'coffee',
    [0, 0, 0],
    [
      [0.038, 0.066],
      [0, 0.066]
    ],
    48
  );
  // the ear, a bent tube that ends within the wall
  const points = Array.from({ length: 13 }, (_, i): Vec3 => {
    const t = -1.25 + (i * 2.5) / 12;
    return [0.04 + 0.022 * Math.cos(t), 0.043 + 0.024 * Math.sin(t), 0];
  });
  for (let i = 0; i + 1 < points.length; i++) {
    m.rod('glazed stoneware', points[i]!, points[i + 1]!, 0.0042, 0.0042, 16);
    m.sphere('glazed stoneware', points[i + 1]!, 0.0042, 8, 16);
  }
  return {
    mesh: m,
    materials: { 'glazed stoneware': GLAZED, coffee: { color: [0.02, 0.01, 0.006], roughness: 0.05 } }
  };
}

export function bowl(): Piece {
  const m = new MeshBuilder(64);
  m.turned(
    'glazed stoneware',
    [0, 0, 0],
    [
      [0, 0.004],
      [0.045, 0.004],
      [0.045, 0],
      [0.05, 0],
      [0.054, 0.008],
      [0.1, 0.03],
      [0.13, 0.06],
      [0.142, 0.088],
      [0.14, 0.09],
      [0.137, 0.088],
      [0.125, 0.062],
      [0.096, 0.035],
      [0.05, 0.014],
      [0, 0.011]
    ],
    96
  );
  return { mesh: m, materials: { 'glazed stoneware': { ...GLAZED, color: [0.12, 0.2, 0.24] } } };
}
