/**
 * The Perihelion lamp: turned brass stem on a stoneware base, an opal light in a clear glass globe, a brass ring about
 * it; 0.47 m tall; about it the things of someone who reads the almanac by its light.
 */
import type { Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../../drawing/mesh-builder';
import { SOLIDS } from '../../drawing/textures/solids';
import type { DrawnMaterial, DrawnModel } from '../../drawing/write-model';
import { glasses, openBook, pencil, THING_MATERIALS } from './things';

const S = 0.2; // the profile is drawn five times as large

export function perihelionLamp(): DrawnModel {
  const m = new MeshBuilder(23);
  const scaled = (profile: readonly (readonly [number, number])[]) => profile.map(([r, h]) => [r * S, h * S] as const);
  m.begin('Base').turned(
    'stoneware',
    [0, 0, 0],
    scaled([
      [0, 0],
      [0.41, 0],
      [0.43, 0.008],
      [0.452, 0.035],
      [0.46, 0.09],
      [0.455, 0.14],
      [0.44, 0.18],
      [0.41, 0.215],
      [0.36, 0.245],
      [0.28, 0.262],
      [0.2, 0.268],
      [0, 0.268]
    ]),
    160
  );
  m.turned(
    'polished brass',
    [0, 0, 0],
    scaled([
      [0.16, 0.262],
      [0.162, 0.285],
      [0.15, 0.296],
      [0.15, 0.296],
      [0.12, 0.3],
      [0.085, 0.318],
      [0.06, 0.35],
      [0.05, 0.39]
    ]),
    128
  );
  m.begin('Stem').turned(
    'brushed brass',
    [0, 0, 0],
    scaled([
      [0.05, 0.39],
      [0.041, 0.5],
      [0.038, 0.62]
    ]),
    96
  );
  m.turned(
    'polished brass',
    [0, 0, 0],
    scaled([
      [0.038, 0.62],
      [0.055, 0.628],
      [0.08, 0.645],
      [0.089, 0.67],
      [0.08, 0.695],
      [0.055, 0.712],
      [0.038, 0.72]
    ]),
    96
  );
  m.turned(
    'brushed brass',
    [0, 0, 0],
    scaled([
      [0.038, 0.72],
      [0.036, 0.95],
      [0.034, 1.2]
    ]),
    96
  );
  m.turned(
    'polished brass',
    [0, 0, 0],
    scaled([
      [0.034, 1.2],
      [0.06, 1.21],
      [0.064, 1.23],
      [0.06, 1.25],
      [0.034, 1.26],
      [0.034, 1.3],
      [0.04, 1.37],
      [0.06, 1.4],
      [0.12, 1.425],
      [0.18, 1.45],
      [0.205, 1.47],
      [0.21, 1.49],
      [0.2, 1.5]
    ]),
    128
  );
  const c: Vec3 = [0, 1.9 * S, 0];
  m.begin('Light').turned(
    'polished brass',
    [0, 0, 0],
    scaled([
      [0.06, 1.49],
      [0.06, 1.6],
      [0.09, 1.62],
      [0.1, 1.66]
    ]),
    64
  );
  m.sphere('opal light', [0, 1.84 * S, 0], 0.2 * S, 48, 96);
  // a real glass: outer and inner wall, 2.4 mm apart; the inner wall faces inwards
  m.begin('Globe').sphere('clear glass', c, 0.46 * S, 72, 144);
  inwardSphere(m, 'clear glass', c, 0.448 * S, 72, 144);
  const axis: Vec3 = [-0.365, 0.931, 0];
  m.begin('Ring').ring('polished brass', c, axis, 0.62 * S, 0.0125 * S, 240, 24);
  const a = 0.5;
  m.sphere(
    'polished brass',
    [c[0] + 0.62 * S * Math.cos(a) * 0.931, c[1] + 0.62 * S * Math.cos(a) * 0.365, -0.62 * S * Math.sin(a)],
    0.052 * S,
    40,
    80
  );
  // the ring is held by two pins from the collar
  for (const side of [-1, 1])
    m.rod(
      'polished brass',
      [0.62 * S * 0.931 * side, c[1] + 0.62 * S * 0.365 * side, 0],
      [0.47 * S * 0.931 * side, c[1] + 0.47 * S * 0.365 * side, 0],
      0.006 * S,
      0.006 * S,
      16
    );
  m.begin('Flex').rod(
    'textile flex',
    [0.45 * S, 0.02 * S, 0.06 * S],
    [3.4 * S, 0.02 * S, 1.6 * S],
    0.016 * S,
    0.016 * S,
    18
  );
  stillLife(m);
  return {
    name: 'Perihelion lamp',
    mesh: m,
    materials: {
      ...THING_MATERIALS,
      ...BOOK_MATERIALS,
      stoneware: { solid: SOLIDS.stoneware, roughness: 0.5 },
      'polished brass': { color: [0.88, 0.64, 0.31], metallic: 1, roughness: 0.1 },
      'brushed brass': { color: [0.86, 0.63, 0.32], metallic: 1, roughness: 0.32 },
      'opal light': { color: [0.92, 0.9, 0.86], roughness: 0.5, glow: [5200, 3700, 2250] },
      'clear glass': {
        color: [1, 1, 1],
        transmission: 1,
        roughness: 0,
        ior: 1.5,
        volume: { thickness: 0.0024, color: [0.93, 0.97, 0.95], distance: 0.05 },
        oneSided: true
      },
      'textile flex': { color: [0.06, 0.055, 0.05], roughness: 0.9 }
    },
    cameras: [
      { name: 'Whole lamp', from: [0.07, 0.33, -1.34], to: [0, 0.225, 0], focalMm: 47 },
      { name: 'Ring and globe', from: [-0.3, 0.43, -0.56], to: [0.015, 0.365, 0], focalMm: 50 }
    ],
    lamps: []
  };
}

/** An evening with the almanac: books and a brass planet on the left, the page with the orbits and glasses on the right. */
function stillLife(m: MeshBuilder): void {
  m.begin('Books');
  let y = 0;
  for (const [i, [cover, tall, deep, thick, turn]] of STACK.entries()) {
    m.place(closedBook(cover, tall, deep, thick), [-0.165 + 0.008 * i, y, 0.12 - 0.006 * i], turn);
    y += thick;
  }
  m.begin('Planet').sphere('polished brass', [-0.17, y + 0.021, 0.105], 0.021, 40, 80);
  m.turned(
    'polished brass',
    [-0.17, y, 0.105],
    [
      [0.012, 0],
      [0.0125, 0.0025],
      [0.0105, 0.004]
    ],
    64
  );
  m.begin('Almanac').place(openBook(), [0.148, 0, -0.15], -0.32);
  m.begin('Glasses').place(glasses(), [0.165, 0.0135, -0.16], 2.65);
  m.begin('Pencil').place(pencil(), [-0.1, 0, -0.17], 0.42);
}

const STACK = [
  ['cloth, bottle green', 0.22, 0.155, 0.031, 0.35],
  ['cloth, sand', 0.2, 0.14, 0.024, 0.55],
  ['cloth, madder', 0.185, 0.125, 0.019, 0.2]
] as const;
const cloth = (color: Vec3): DrawnMaterial => ({ color, roughness: 0.85, sheen: { color, roughness: 0.5 } });
const BOOK_MATERIALS: Record<string, DrawnMaterial> = {
  'cloth, bottle green': cloth([0.035, 0.075, 0.055]),
  'cloth, sand': cloth([0.42, 0.34, 0.22]),
  'cloth, madder': cloth([0.25, 0.05, 0.04]),
  gilt: { color: [0.83, 0.63, 0.3], metallic: 1, roughness: 0.35 }
};

/** Lies flat, its spine along x towards the viewer, with two gilt lines on it. */
function closedBook(cover: string, tall: number, deep: number, thick: number): MeshBuilder {
  const m = new MeshBuilder(7);
  const [x, z] = [tall / 2, deep / 2];
  for (const y of [0, thick - 0.0028]) m.box(cover, [-x, y, -z], [x, y + 0.0028, z], 0.0009);
  m.box(cover, [-x, 0, -z], [x, thick, -z + 0.003], 0.0012);
  m.box('page edges', [-x + 0.004, 0.0026, -z + 0.002], [x - 0.004, thick - 0.0026, z - 0.004], 0.0004);
  for (const at of [-0.7, -0.62, 0.5, 0.58])
    m.box('gilt', [x * at, 0.003, -z - 0.0002], [x * at + 0.0022, thick - 0.003, -z + 0.001], 0.0001);
  return m;
}

function inwardSphere(
  m: MeshBuilder,
  material: string,
  at: Vec3,
  radius: number,
  rings: number,
  segments: number
): void {
  const part = m.part(material);
  const before = { vertex: part.positions.length / 3, index: part.indices.length };
  m.sphere(material, at, radius, rings, segments);
  for (let i = before.vertex * 3; i < part.normals.length; i++) part.normals[i] = -part.normals[i]!;
  for (let i = before.index; i < part.indices.length; i += 3)
    [part.indices[i + 1], part.indices[i + 2]] = [part.indices[i + 2]!, part.indices[i + 1]!];
}
