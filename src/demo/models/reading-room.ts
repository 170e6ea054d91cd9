/**
 * The reading room of the Lantern Hill hut: shelves with lamps, a long table, a bench along the far window, a star
 * globe; 6 m wide, 9.5 m deep.
 */
import type { Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../../drawing/mesh-builder';
import { cup, bowl } from '../../drawing/pieces/things';
import { pottedPlant, tallPlant } from '../../drawing/pieces/plants';
import { SOLIDS } from '../../drawing/textures/solids';
import { boards, meadow, starChart, wood } from '../../drawing/textures/surfaces';
import type { DrawnModel } from '../../drawing/write-model';
import { garden } from './garden';
import { curtain, glasses, openBook, pencil, THING_MATERIALS, throwCloth } from './things';

const WARM: Vec3 = [1, 0.66, 0.36];

const STOOLS: readonly (readonly [x: number, z: number])[] = [
  [-1.12, 2.9],
  [-1.15, 4.1],
  [-1.1, 5.2],
  [0.98, 3.6],
  [1.0, 4.9]
];

export function readingRoom(): DrawnModel {
  const mesh = new MeshBuilder(11);
  const { random } = mesh;
  shell(mesh.begin('Shell'));
  windows(mesh.begin('Windows'));
  const grounds = garden(mesh);
  shelves(mesh.begin('Shelves'));
  table(mesh.begin('Table'));
  bench(mesh.begin('Bench'));
  globe(mesh.begin('Star globe'), [1.72, 1.02, 2.95]);
  for (const [i, [x, z]] of STOOLS.entries()) stool(mesh.begin(`Stool ${i + 1}`), x, z, random() * 2);
  curtains(mesh.begin('Curtains'));
  rug(mesh.begin('Rug'));
  const pieces = inUse(mesh);
  return {
    name: 'Reading room',
    mesh,
    copies: grounds.copies,
    materials: {
      ...THING_MATERIALS,
      ...pieces,
      ...grounds.materials,
      gilt: { color: [0.83, 0.63, 0.3], metallic: 1, roughness: 0.35 },
      linen: { color: [0.66, 0.62, 0.54], roughness: 0.95, through: { weight: 0.4, color: [0.72, 0.66, 0.55] } },
      'rug, wool': { solid: SOLIDS.woven, color: [0.9, 0.84, 0.72], roughness: 1 },
      'rug, border': { solid: SOLIDS['rust cloth'], color: [0.5, 0.42, 0.4], roughness: 1 },
      'oak floor': { texture: boards([0.44, 0.27, 0.145], 3), span: [3.2, 3.2], roughness: 1 },
      plaster: { solid: SOLIDS.trowelled, roughness: 0.95 },
      'dark walnut': { texture: wood([0.3, 0.17, 0.088], 21), span: [2.4, 0.6] },
      'light oak': { texture: wood([0.5, 0.33, 0.185], 33), span: [2.4, 0.6] },
      'turned oak': { solid: SOLIDS.oak, roughness: 0.5 },
      'blackened steel': { color: [0.035, 0.034, 0.033], metallic: 0, roughness: 0.42 },
      brass: { color: [0.86, 0.62, 0.3], metallic: 1, roughness: 0.2 },
      'window glass': { color: [0.97, 0.985, 0.98], transmission: 1, roughness: 0, ior: 1.5 },
      'star chart': { texture: starChart(5), roughness: 0.22 },
      'green cloth': { solid: SOLIDS['green cloth'], roughness: 0.95 },
      'rust cloth': { solid: SOLIDS['rust cloth'], roughness: 0.95 },
      meadow: { texture: meadow(4), span: [4, 4], roughness: 1 },
      paper: { color: [0.82, 0.79, 0.72], roughness: 0.9 },
      stoneware: { solid: SOLIDS.stoneware, roughness: 0.55 },
      'Shelf lamps': { color: [0.9, 0.88, 0.84], roughness: 0.4, glow: [9000, 6000, 3300] },
      'Table lamps': { color: [0.9, 0.88, 0.84], roughness: 0.4, glow: [9000, 6000, 3300] },
      ...Object.fromEntries(BOOKS.map(([name, color]) => [name, { color, roughness: 0.72 }]))
    },
    cameras: [
      { name: 'East window', from: [0.55, 1.46, -1.1], to: [-0.2, 1.2, 6], focalMm: 24 },
      { name: 'Star globe', from: [0.75, 1.32, 0.95], to: [1.66, 0.92, 3], focalMm: 36 },
      { name: 'From the bench', from: [-1.9, 1.25, 6.7], to: [1.2, 1.05, 1.2], focalMm: 24 }
    ],
    lamps: [
      {
        name: 'Picture spot 1',
        kind: 'spot',
        at: [-1.4, 2.75, 1.3],
        to: [-3, 1.2, 1.3],
        color: WARM,
        candela: 240,
        innerDeg: 16,
        outerDeg: 38
      },
      {
        name: 'Picture spot 2',
        kind: 'spot',
        at: [-1.4, 2.75, 4.9],
        to: [-3, 1.2, 4.9],
        color: WARM,
        candela: 240,
        innerDeg: 16,
        outerDeg: 38
      }
    ]
  };
}

const BOOKS: [string, Vec3][] = [
  ['book, oxblood', [0.32, 0.07, 0.05]],
  ['book, slate blue', [0.07, 0.13, 0.21]],
  ['book, straw', [0.5, 0.41, 0.25]],
  ['book, moss', [0.12, 0.18, 0.1]],
  ['book, linen', [0.58, 0.54, 0.47]],
  ['book, umber', [0.14, 0.1, 0.08]],
  ['book, russet', [0.42, 0.19, 0.07]],
  ['book, grey', [0.26, 0.27, 0.29]],
  ['book, bone', [0.66, 0.63, 0.56]],
  ['book, pine', [0.05, 0.1, 0.075]],
  ['book, plum', [0.16, 0.06, 0.1]],
  ['book, ochre', [0.46, 0.28, 0.08]],
  ['book, night', [0.03, 0.035, 0.05]]
];

function shell(m: MeshBuilder): void {
  // the floor's boards run into the depth: u along z
  const part = m.part('oak floor');
  const ids = (
    [
      [-3.2, -2],
      [3.3, -2],
      [3.3, 7.7],
      [-3.2, 7.7]
    ] as const
  ).map(([x, z]) => m.vertex(part, [x, 0, z], [0, 1, 0], z, x));
  part.indices.push(ids[0]!, ids[2]!, ids[1]!, ids[0]!, ids[3]!, ids[2]!);
  m.box('plaster', [-3.3, 3, -2.2], [3.3, 3.2, 7.7], 0);
  m.box('plaster', [-3.3, -0.1, -2.2], [-3, 3, 7.7], 0);
  m.box('plaster', [-3.3, -0.1, -2.2], [3.3, 3, -2], 0);
  // far wall round its window
  m.box('plaster', [-3, -0.1, 7.5], [3, 0.8, 7.7], 0.004);
  m.box('plaster', [-3, 2.55, 7.5], [3, 3, 7.7], 0.004);
  m.box('plaster', [-3, 0.8, 7.5], [-2.3, 2.55, 7.7], 0.004);
  m.box('plaster', [2.3, 0.8, 7.5], [3, 2.55, 7.7], 0.004);
  for (let i = 0; i < 7; i++) {
    const z = 0.1 + 1.2 * i;
    m.box('dark walnut', [-3, 2.78, z], [3, 3, z + 0.14], 0.006);
  }
  m.box('dark walnut', [-3, 0, 7.48], [3, 0.09, 7.5], 0.003);
}

const SIDE_WINDOWS: readonly (readonly [number, number])[] = [
  [-0.9, 0.3],
  [1.2, 2.5],
  [3.4, 4.7],
  [5.6, 6.7]
];

function windows(m: MeshBuilder): void {
  for (let i = 0; i < 5; i++) {
    const x = -2.3 + 1.15 * i;
    m.box('blackened steel', [x - 0.028, 0.8, 7.52], [x + 0.028, 2.55, 7.6], 0.004);
  }
  for (const [y0, y1] of [
    [0.8, 0.86],
    [2.49, 2.55],
    [2, 2.035]
  ] as const)
    m.box('blackened steel', [-2.3, y0, 7.525], [2.3, y1, 7.595], 0.003);
  for (let i = 0; i < 4; i++) {
    const x = -2.27 + 1.15 * i;
    m.quad('window glass', [x, 0.86, 7.56], [x + 1.09, 0.86, 7.56], [x + 1.09, 2.5, 7.56], [x, 2.5, 7.56]);
  }
  m.box('light oak', [-2.35, 0.77, 7.3], [2.35, 0.81, 7.62], 0.005);
  let z = -2.2;
  for (const [a, b] of SIDE_WINDOWS) {
    m.box('plaster', [3, -0.1, z], [3.3, 3, a], 0.004);
    m.box('plaster', [3, -0.1, a], [3.3, 0.25, b], 0.004);
    m.box('plaster', [3, 2.6, a], [3.3, 3, b], 0.004);
    m.box('blackened steel', [3.12, 0.25, (a + b) / 2 - 0.022], [3.18, 2.6, (a + b) / 2 + 0.022], 0.004);
    m.box('blackened steel', [3.12, 0.25, a], [3.18, 0.3, b], 0.004);
    m.box('blackened steel', [3.12, 2.55, a], [3.18, 2.6, b], 0.004);
    m.box('blackened steel', [3.12, 1.9, a], [3.18, 1.94, b], 0.004);
    m.quad('window glass', [3.15, 0.3, a], [3.15, 0.3, b], [3.15, 2.55, b], [3.15, 2.55, a]);
    z = b;
  }
  m.box('plaster', [3, -0.1, z], [3.3, 3, 7.7], 0.004);
}

function shelves(m: MeshBuilder): void {
  const { random } = m;
  for (let i = 0; i < 7; i++) {
    const z = 0.3 + 1.15 * i;
    if (z < 7.3) m.box('light oak', [-3, 0, z - 0.018], [-2.62, 2.62, z + 0.018], 0.003);
  }
  for (let k = 0; k < 7; k++) {
    const y = 0.08 + 0.42 * k;
    m.box('light oak', [-3, y - 0.016, -0.9], [-2.6, y + 0.016, 7.22], 0.003);
  }
  m.box('light oak', [-3, 0.06, -0.92], [-2.6, 2.64, -0.88], 0.003);
  for (let k = 0; k < 6; k++) {
    const y = 0.096 + 0.42 * k;
    let z = -0.85;
    while (z < 7.1) {
      if (random() < 0.07) {
        z += 0.12 + 0.3 * random();
        continue;
      }
      const width = 0.022 + 0.034 * random();
      const height = 0.21 + 0.13 * random();
      const depth = 0.18 + 0.08 * random();
      const [name] = BOOKS[Math.floor(random() * BOOKS.length)]!;
      const run = 1 + Math.floor(random() * 5);
      const bands = random() < 0.55;
      for (let n = 0; n < run && z < 7.1; n++) {
        const post = ((((z - 0.3) / 1.15) % 1) + 1) % 1;
        if (post > 0.035 && post + width / 1.15 < 0.965) {
          const front = -2.96 + depth + 0.012 * random();
          m.box(name, [-2.96, y, z], [front, y + height * (0.97 + 0.05 * random()), z + width - 0.0015], 0.0035);
          if (bands) spineBands(m, front, y, height, z, width - 0.0015);
        }
        z += width;
      }
    }
  }
  for (let i = 0; i < 4; i++) {
    const z = 1.075 + 1.725 * i;
    m.rod('brass', [-2.62, 2.3, z], [-2.4, 2.3, z], 0.011);
    m.rod('brass', [-2.42, 2.12, z], [-2.42, 2.3, z], 0.011);
    m.turned(
      'brass',
      [-2.42, 2.1, z],
      [
        [0.052, 0],
        [0.05, 0.025],
        [0.03, 0.05],
        [0.012, 0.06]
      ],
      32
    );
    m.sphere('Shelf lamps', [-2.42, 2.06, z], 0.068, 16, 32);
  }
}

/** A label and two lines in gold, as a binder sets them. */
function spineBands(m: MeshBuilder, front: number, y: number, height: number, z: number, width: number): void {
  const band = (low: number, high: number, material = 'gilt') =>
    m.box(
      material,
      [front - 0.002, y + height * low, z + 0.004],
      [front + 0.0005, y + height * high, z + width - 0.004],
      0.0002
    );
  band(0.7, 0.84, m.random() < 0.5 ? 'book, bone' : 'book, night');
  band(0.12, 0.13);
  band(0.88, 0.89);
}

const RUG = { x: [-1.75, 1.5], z: [2.05, 6.3], border_m: 0.14 } as const;

function rug(m: MeshBuilder): void {
  const [x0, x1] = RUG.x;
  const [z0, z1] = RUG.z;
  m.box('rug, border', [x0, 0.0005, z0], [x1, 0.009, z1], 0.003);
  const b = RUG.border_m;
  m.box('rug, wool', [x0 + b, 0.001, z0 + b], [x1 - b, 0.0115, z1 - b], 0.003);
}

/** Drawn back between the windows, with a rail above. */
function curtains(m: MeshBuilder): void {
  m.rod('blackened steel', [2.9, 2.74, -1.1], [2.9, 2.74, 7.3], 0.011, 0.011, 16);
  const tall = 2.7;
  for (const z of [0.32, 2.52, 4.72]) m.place(curtain('linen', 0.42, tall, 6), [2.9, 0.03, z]);
  m.place(curtain('linen', 0.34, tall, 5), [2.9, 0.03, 6.76]);
}

/** A book left open, a cup, glasses, papers; plants on the sill and in the corner; a throw on the bench. */
function inUse(m: MeshBuilder): DrawnModel['materials'] {
  m.begin('Things in use');
  const top = 0.756;
  m.place(openBook(), [-0.12, top, 3.42], 2.9);
  m.place(glasses(), [0.16, top, 3.28], 0.5);
  m.place(pencil(), [0.2, top, 3.5], 1.1);
  m.place(openBook(), [-0.42, top, 4.62], 1.45);
  m.begin('Throw').place(throwCloth('linen', 0.86, 0.42, 0.27), [0.86, 0.412, 6.845]);
  const pieces = {
    Cup: { piece: cup(), at: [0.3, top, 3.05] as Vec3, turn: 0.7 },
    Bowl: { piece: bowl(), at: [-0.1, top, 5] as Vec3, turn: 0 },
    'Potted plant': { piece: pottedPlant(), at: [-1.9, 0.81, 7.33] as Vec3, turn: 0.4 },
    'Tall plant': { piece: tallPlant(), at: [2.45, 0, 6.42] as Vec3, turn: 1 }
  };
  const materials: DrawnModel['materials'] = {};
  for (const [name, { piece, at, turn }] of Object.entries(pieces)) {
    m.begin(name).place(piece.mesh, at, turn);
    for (const [key, made] of Object.entries(piece.materials)) materials[key] ??= made;
  }
  return materials;
}

function table(m: MeshBuilder): void {
  m.box('light oak', [-0.78, 0.71, 2.35], [0.58, 0.755, 5.95], 0.006);
  for (const z of [2.6, 5.6]) {
    m.box('light oak', [-0.66, 0, z], [-0.57, 0.71, z + 0.09], 0.005);
    m.box('light oak', [0.37, 0, z], [0.46, 0.71, z + 0.09], 0.005);
    m.box('light oak', [-0.6, 0.62, z + 0.015], [0.4, 0.7, z + 0.075], 0.004);
    m.box('light oak', [-0.6, 0.1, z + 0.02], [0.4, 0.16, z + 0.07], 0.004);
  }
  m.box('light oak', [-0.13, 0.1, 2.7], [-0.07, 0.16, 5.7], 0.004);
  m.box('paper', [-0.5, 0.756, 2.6], [-0.29, 0.7575, 2.9], 0.0004, 0.22);
  m.box('paper', [-0.46, 0.7576, 2.66], [-0.25, 0.7588, 2.96], 0.0004, -0.1);
  m.box('book, oxblood', [0.12, 0.756, 3.85], [0.36, 0.8, 4.17], 0.005, -0.3);
  m.box('book, linen', [0.14, 0.801, 3.87], [0.35, 0.836, 4.14], 0.005, 0.15);
  m.box('book, slate blue', [-0.56, 0.756, 4.86], [-0.34, 0.794, 5.16], 0.005, 0.1);
  for (const [x, z] of [
    [-0.35, 4.05],
    [0.15, 5.4]
  ] as const) {
    m.turned(
      'stoneware',
      [x, 0.756, z],
      [
        [0, 0],
        [0.088, 0],
        [0.094, 0.012],
        [0.086, 0.036],
        [0.05, 0.05],
        [0, 0.052]
      ],
      48
    );
    m.rod('brass', [x, 0.8, z], [x, 1.06, z], 0.011);
    m.turned(
      'brass',
      [x, 1.03, z],
      [
        [0.012, 0],
        [0.045, 0.008],
        [0.05, 0.03],
        [0.042, 0.04]
      ],
      32
    );
    m.sphere('Table lamps', [x, 1.125, z], 0.075, 16, 32);
  }
}

function stool(m: MeshBuilder, x: number, z: number, turn: number): void {
  m.turned(
    'turned oak',
    [x, 0.42, z],
    [
      [0, 0],
      [0.17, 0],
      [0.19, 0.012],
      [0.19, 0.03],
      [0.18, 0.042],
      [0.06, 0.036],
      [0, 0.034]
    ],
    48
  );
  for (let i = 0; i < 4; i++) {
    const a = (i * Math.PI) / 2 + turn;
    m.rod(
      'turned oak',
      [x + 0.185 * Math.cos(a), 0, z + 0.185 * Math.sin(a)],
      [x + 0.12 * Math.cos(a), 0.43, z + 0.12 * Math.sin(a)],
      0.013,
      0.018,
      14
    );
    m.rod(
      'turned oak',
      [x + 0.165 * Math.cos(a), 0.14, z + 0.165 * Math.sin(a)],
      [x + 0.165 * Math.cos(a + Math.PI / 2), 0.14, z + 0.165 * Math.sin(a + Math.PI / 2)],
      0.009,
      0.009,
      10
    );
  }
}

function bench(m: MeshBuilder): void {
  m.box('light oak', [-2.55, 0.36, 6.85], [2.6, 0.41, 7.5], 0.005);
  for (let i = 0; i < 5; i++) m.box('light oak', [-2.5 + 1.02 * i, 0.02, 6.94], [-1.5 + 1.02 * i, 0.36, 6.965], 0.004);
  for (let i = 0; i < 3; i++) cushion(m, 'green cloth', [-1.55 + 1.55 * i, 0.455, 7.16], [0.76, 0.045, 0.28], 0);
  cushion(m, 'rust cloth', [-1.55, 0.66, 7.3], [0.23, 0.17, 0.055], 0.3);
  cushion(m, 'green cloth', [-0.98, 0.65, 7.32], [0.2, 0.16, 0.05], 0.34);
  cushion(m, 'rust cloth', [1.7, 0.66, 7.3], [0.22, 0.17, 0.055], 0.32);
}

/** A soft box: a superellipsoid, leaning back by `lean` radians. */
function cushion(m: MeshBuilder, material: string, at: Vec3, half: Vec3, lean: number): void {
  const part = m.part(material);
  const rings = 24;
  const segments = 48;
  const first = part.positions.length / 3;
  const power = (v: number, e: number) => Math.sign(v) * Math.abs(v) ** e;
  const c = Math.cos(lean);
  const s = Math.sin(lean);
  for (let j = 0; j <= rings; j++) {
    const t = Math.PI * (j / rings - 0.5);
    for (let i = 0; i <= segments; i++) {
      const p = (2 * Math.PI * i) / segments;
      const x = power(Math.cos(t), 0.45) * power(Math.cos(p), 0.4) * half[0];
      const y = power(Math.cos(t), 0.45) * power(Math.sin(p), 0.4) * half[1];
      const z = power(Math.sin(t), 0.6) * half[2];
      const n: Vec3 = [
        (power(Math.cos(t), 1.55) * power(Math.cos(p), 1.6)) / half[0],
        (power(Math.cos(t), 1.55) * power(Math.sin(p), 1.6)) / half[1],
        power(Math.sin(t), 1.4) / half[2]
      ];
      const size = Math.hypot(...n) || 1;
      const turn = (v: Vec3): Vec3 => [v[0], v[1] * c - v[2] * s, v[1] * s + v[2] * c];
      const q = turn([x, y, z]);
      m.vertex(
        part,
        [at[0] + q[0], at[1] + q[1], at[2] + q[2]],
        turn([n[0] / size, n[1] / size, n[2] / size]),
        x,
        y + z
      );
    }
  }
  const row = segments + 1;
  for (let j = 0; j < rings; j++)
    for (let i = 0; i < segments; i++) {
      const a = first + j * row + i;
      part.indices.push(a, a + 1, a + row + 1, a, a + row + 1, a + row);
    }
}

function globe(m: MeshBuilder, g: Vec3): void {
  m.sphere('star chart', g, 0.34, 64, 128, true);
  const tilt = 0.41;
  m.ring('brass', g, [Math.sin(tilt) * 0.3, -Math.sin(tilt), Math.cos(tilt) * 0.95], 0.385, 0.012, 128, 14);
  m.ring('turned oak', [g[0], g[1] - 0.02, g[2]], [0, 1, 0], 0.43, 0.023, 128, 14);
  for (let i = 0; i < 4; i++) {
    const a = (i * Math.PI) / 2 + 0.4;
    m.rod(
      'turned oak',
      [g[0] + 0.36 * Math.cos(a), 0, g[2] + 0.36 * Math.sin(a)],
      [g[0] + 0.43 * Math.cos(a), g[1] - 0.03, g[2] + 0.43 * Math.sin(a)],
      0.016,
      0.022,
      18
    );
  }
  m.turned(
    'turned oak',
    [g[0], 0.2, g[2]],
    [
      [0, 0],
      [0.33, 0],
      [0.34, 0.01],
      [0.34, 0.03],
      [0.33, 0.04],
      [0, 0.04]
    ],
    64
  );
  m.turned(
    'brass',
    [g[0], 0.24, g[2]],
    [
      [0.05, 0],
      [0.03, 0.04],
      [0.02, 0.2],
      [0.026, 0.36],
      [0.05, 0.4]
    ],
    32
  );
}
