/**
 * The Lantern Hill hut: timber hall on a stone plinth, stone tower under a copper dome with its slit, a path through
 * the meadow; on a slope of 70 x 60 m.
 */
import type { Vec3 } from '../../core/math/vec3';
import { add, cross, normalize, scale } from '../../core/math/vec3';
import { MeshBuilder } from '../../drawing/mesh-builder';
import { field } from '../../drawing/noise';
import { SOLIDS } from '../../drawing/textures/solids';
import { copper, masonry, meadow, wood } from '../../drawing/textures/surfaces';
import type { DrawnModel } from '../../drawing/write-model';
import { ground } from './hill';
import { spruces } from './spruces';

const BLADES = 120_000;

export function hut(): DrawnModel {
  const m = new MeshBuilder(31);
  m.begin('Site').terrain('meadow', -150, 170, -40, 260, 150, 140, ground);
  grass(m);
  plinth(m.begin('Plinth and steps'));
  hall(m.begin('Hall'));
  tower(m.begin('Tower'), [3.05, 0, 7.7]);
  path(m.begin('Path'));
  const blade = (color: Vec3) => ({ color, roughness: 0.9 });
  return {
    name: 'Lantern Hill hut',
    mesh: m,
    copies: spruces(m),
    materials: {
      meadow: { texture: meadow(6), span: [4, 4] },
      'grass, green': blade([0.13, 0.165, 0.045]),
      'grass, pale': blade([0.22, 0.225, 0.085]),
      'grass, dark': blade([0.085, 0.125, 0.035]),
      'grass, straw': blade([0.36, 0.3, 0.14]),
      'field stone': { texture: masonry([0.42, 0.4, 0.36], 3), span: [2.52, 2.52], roughness: 0.9 },
      larch: { texture: wood([0.4, 0.25, 0.135], 15), span: [2.4, 0.6] },
      'weathered copper': { texture: copper(12), span: [2, 2], metallic: 1 },
      'blackened steel': { color: [0.03, 0.03, 0.03], roughness: 0.4 },
      concrete: { solid: SOLIDS.poured, roughness: 0.85 },
      'window glass': { color: [0.97, 0.985, 0.98], transmission: 1, roughness: 0, ior: 1.5 },
      'inside wall': { color: [0.62, 0.58, 0.52], roughness: 0.9 },
      'dark interior': { color: [0.05, 0.048, 0.045], roughness: 0.9 },
      'lamp strip': { color: [0.9, 0.88, 0.84], glow: [14000, 9500, 5200] },
      spruce: { color: [0.042, 0.07, 0.03], roughness: 0.95 },
      bark: { color: [0.1, 0.065, 0.045], roughness: 0.95 }
    },
    cameras: [
      { name: 'From the meadow', from: [-1.2, 1.35, -5.4], to: [1.45, 1.62, 7], focalMm: 31 },
      { name: 'Dome and slit', from: [-3.4, 2.3, 0.6], to: [2.6, 2.5, 7.5], focalMm: 40 },
      { name: 'Up the path', from: [0.1, 0.75, -1.2], to: [1.9, 2.1, 7.4], focalMm: 26 }
    ],
    lamps: [{ name: 'Door lamp', kind: 'point', at: [1.02, 2.3, 5.8], color: [1, 0.7, 0.42], candela: 30 }]
  };
}

function grass(m: MeshBuilder): void {
  const { random } = m;
  const kinds = ['grass, green', 'grass, pale', 'grass, dark', 'grass, straw'] as const;
  for (let i = 0; i < BLADES; i++) {
    const q = random();
    const z = -6 + q ** 1.7 * 27;
    const x = (random() - 0.5) * (9 + (z + 7) * 1.5);
    if (x > -1.6 && x < 4.9 && z > 5.1 && z < 9.8) continue;
    if (onPath(x, z)) continue;
    const y = ground(x, z);
    const tall = (0.09 + 0.17 * random()) * (0.55 + 0.8 * field(x * 0.5, z * 0.5, 8));
    const a = random() * 2 * Math.PI;
    const w = (0.004 + 0.004 * random()) * (1 + Math.max(0, z) * 0.05);
    const side: Vec3 = [Math.cos(a) * w, 0, Math.sin(a) * w];
    const tip: Vec3 = [x + (random() - 0.3) * 0.14, y + tall, z + (random() - 0.5) * 0.14];
    const patch = field(x * 0.6, z * 0.6, 4) + 0.35 * random();
    const kind = kinds[patch > 0.82 ? 3 : random() < 0.3 ? 1 : random() < 0.5 ? 2 : 0]!;
    const part = m.part(kind);
    // lit as a meadow, not as blades of tin: normals lean up
    const n = normalize([-Math.sin(a) * 0.6, 0.9, Math.cos(a) * 0.6]);
    const first = m.vertex(part, [x - side[0], y - 0.02, z - side[2]], n, 0, 0);
    m.vertex(part, [x + side[0], y - 0.02, z + side[2]], n, 0, 0);
    m.vertex(part, tip, n, 0, 0);
    const flat = cross([2 * side[0], 0, 2 * side[2]], [tip[0] - x + side[0], tall + 0.02, tip[2] - z + side[2]]);
    if (flat[0] * n[0] + flat[1] * n[1] + flat[2] * n[2] > 0) part.indices.push(first, first + 1, first + 2);
    else part.indices.push(first, first + 2, first + 1);
  }
}

const stone = (t: number): [number, number] => [1.05 - 0.16 * t + 0.25 * Math.sin(t * 0.8), 4.75 - 0.78 * t];
function onPath(x: number, z: number): boolean {
  for (let t = 0; t < 13; t++) {
    const [sx, sz] = stone(t);
    if (Math.abs(x - sx) < 0.38 && Math.abs(z - sz) < 0.3) return true;
  }
  return false;
}

function path(m: MeshBuilder): void {
  for (let t = 0; t < 13; t++) {
    const [x, z] = stone(t);
    const wide = 0.33 + 0.05 * Math.sin(t * 2);
    const y = ground(x, z);
    m.box('concrete', [x - wide, y - 0.08, z - 0.26], [x + wide, y + 0.05, z + 0.26], 0.02, 0.2 * Math.sin(t * 1.7));
  }
}

function plinth(m: MeshBuilder): void {
  m.box('field stone', [-1.4, -1.2, 6], [2.9, 0.55, 9.4], 0.012);
  m.box('concrete', [-1.46, 0.52, 5.94], [1.62, 0.6, 9.46], 0.008);
  m.box('concrete', [0.6, -0.1, 5.1], [1.5, 0.3, 6], 0.01);
  m.box('concrete', [0.68, 0.2, 5.4], [1.42, 0.56, 6], 0.01);
}

function hall(m: MeshBuilder): void {
  const [x0, x1, z0, z1, y0, y1] = [-1.32, 1.55, 6.1, 9.3, 0.6, 2.6];
  // a real room behind the boards: floor, walls, ceiling, so that the window shows depth
  m.box('inside wall', [x0 + 0.02, y0 - 0.02, z1 - 0.12], [x1, y1, z1 - 0.04], 0);
  m.box('inside wall', [x1 - 0.1, y0, z0 + 0.05], [x1, y1, z1 - 0.05], 0);
  m.box('inside wall', [x0 + 0.03, y1 - 0.06, z0 + 0.02], [x1, y1, z1], 0);
  m.box('larch', [x0, y0 - 0.06, z0], [x1, y0, z1], 0.003);
  m.box('larch', [-0.9, 1.3, z1 - 0.5], [0.3, 1.34, z1 - 0.12], 0.004);
  m.box('lamp strip', [-0.62, 2.4, 7.4], [0.1, 2.43, 7.46], 0.004);
  const window = { x0: -1, x1: 0.4, y0: 0.98, y1: 2.12 };
  const door = { x0: 0.75, x1: 1.3, y1: 2.15 };
  const pitch = 0.118;
  for (let x = x0; x + pitch <= x1 + 0.01; x += pitch) {
    const b = x + pitch - 0.006;
    const low = (a: number, c: number) => m.box('larch', [x, a, z0 - 0.012 * m.random()], [b, c, z0 + 0.03], 0.004);
    if (b > window.x0 && x < window.x1) {
      low(y0, window.y0);
      low(window.y1, y1);
    } else if (b > door.x0 && x < door.x1) low(door.y1, y1);
    else low(y0, y1);
  }
  for (let z = z0; z + pitch <= z1 + 0.01; z += pitch)
    m.box('larch', [x0 - 0.012 * m.random(), y0, z], [x0 + 0.03, y1, z + pitch - 0.006], 0.004);
  m.begin('Roof');
  m.box('concrete', [-1.68, 2.6, 5.66], [1.8, 2.72, 9.66], 0.01);
  m.box('blackened steel', [-1.7, 2.7, 5.64], [1.82, 2.75, 9.68], 0.006);
  m.begin('Window');
  const f = 0.045;
  m.box('blackened steel', [window.x0 - f, window.y0 - f, z0 - 0.03], [window.x1 + f, window.y0, z0 + 0.05], 0.004);
  m.box('blackened steel', [window.x0 - f, window.y1, z0 - 0.03], [window.x1 + f, window.y1 + f, z0 + 0.05], 0.004);
  for (let i = 0; i <= 3; i++) {
    const x = window.x0 + ((window.x1 - window.x0) * i) / 3;
    m.box('blackened steel', [x - 0.02, window.y0, z0 - 0.03], [x + 0.02, window.y1, z0 + 0.05], 0.004);
  }
  m.quad(
    'window glass',
    [window.x0, window.y0, z0 + 0.01],
    [window.x1, window.y0, z0 + 0.01],
    [window.x1, window.y1, z0 + 0.01],
    [window.x0, window.y1, z0 + 0.01]
  );
  m.begin('Door');
  m.box('blackened steel', [door.x0 - 0.04, 0.56, z0 - 0.02], [door.x0, door.y1 + 0.04, z0 + 0.05], 0.004);
  m.box('blackened steel', [door.x1, 0.56, z0 - 0.02], [door.x1 + 0.04, door.y1 + 0.04, z0 + 0.05], 0.004);
  m.box('blackened steel', [door.x0, door.y1, z0 - 0.02], [door.x1, door.y1 + 0.04, z0 + 0.05], 0.004);
  m.box('dark interior', [door.x0, 0.56, z0 + 0.02], [door.x1, door.y1, z0 + 0.04], 0.002);
  m.rod('weathered copper', [door.x0 + 0.07, 1.1, z0 - 0.02], [door.x0 + 0.07, 1.5, z0 - 0.02], 0.012, 0.012, 16);
  m.box('blackened steel', [0.95, 2.28, 5.84], [1.09, 2.33, 6.1], 0.006);
}

function tower(m: MeshBuilder, c: Vec3): void {
  m.turned(
    'field stone',
    c,
    [
      [1.5, -1.4],
      [1.5, 2.45]
    ],
    128
  );
  m.turned(
    'concrete',
    c,
    [
      [1.5, 2.42],
      [1.62, 2.42],
      [1.62, 2.42],
      [1.62, 2.58],
      [1.62, 2.58],
      [1.4, 2.6]
    ],
    128
  );
  m.turned(
    'weathered copper',
    c,
    [
      [1.5, 2.58],
      [1.52, 2.6],
      [1.52, 2.74],
      [1.5, 2.78]
    ],
    128
  );
  const middle: Vec3 = [c[0], 2.76, c[2]];
  m.begin('Dome').turned(
    'weathered copper',
    middle,
    Array.from(
      { length: 33 },
      (_, i) => [1.5 * Math.cos((Math.PI / 2) * (i / 32)), 1.5 * Math.sin((Math.PI / 2) * (i / 32))] as const
    ),
    160
  );
  // standing seams
  for (let k = 0; k < 28; k++) {
    const a = (2 * Math.PI * k) / 28;
    const out: Vec3 = [Math.cos(a), 0, Math.sin(a)];
    const along: Vec3 = [-Math.sin(a), 0, Math.cos(a)];
    for (let i = 0; i < 14; i++) {
      const t = ((i + 0.5) / 15) * (Math.PI / 2);
      const u = add(scale(out, Math.cos(t)), [0, Math.sin(t), 0]);
      const w = add(scale(out, -Math.sin(t)), [0, Math.cos(t), 0]);
      m.turnedBox('weathered copper', add(middle, scale(u, 1.508)), [0.008, 0.086, 0.016], along, w, 0.003);
    }
  }
  // the slit, towards the meadow
  const facing = normalize([-0.55, 0, -0.83]);
  const side: Vec3 = [-facing[2], 0, facing[0]];
  for (let k = 0; k < 15; k++) {
    const t = 0.12 + k * 0.095;
    const u = add(scale(facing, Math.cos(t)), [0, Math.sin(t), 0]);
    const w = cross(u, side);
    m.turnedBox('dark interior', add(middle, scale(u, 1.5)), [0.17, 0.076, 0.028], side, w, 0);
    for (const s of [-1, 1])
      m.turnedBox(
        'weathered copper',
        add(add(middle, scale(u, 1.515)), scale(side, 0.19 * s)),
        [0.026, 0.078, 0.05],
        side,
        w,
        0.006
      );
  }
}
