/**
 * The Lantern Hill hut: timber hall on a stone plinth, stone tower under a copper dome with its slit, on a slope among
 * trees, with a path through the meadow and someone on it.
 */
import type { Vec3 } from '../../core/math/vec3';
import { add, cross, normalize, scale } from '../../core/math/vec3';
import { MeshBuilder } from '../../drawing/mesh-builder';
import { SOLIDS } from '../../drawing/textures/solids';
import { copper, masonry, meadow, wood } from '../../drawing/textures/surfaces';
import type { DrawnModel } from '../../drawing/write-model';
import { GRID_M, ground } from './hill';
import { INSIDE_MATERIALS, inside } from './hut-inside';
import { MEADOW_MATERIALS, flowers, grass, path } from './meadow';
import { trees } from './trees';
import { VISITOR_MATERIALS, visitor } from './visitor';

export function hut(): DrawnModel {
  const m = new MeshBuilder(31);
  plinth(m.begin('Plinth and steps'));
  hall(m.begin('Hall'));
  inside(m.begin('Inside'));
  tower(m.begin('Tower'), [3.05, 0, 7.7]);
  m.grow(GRID_M);
  m.begin('Site').terrain('meadow', -190, 220, -50, 340, 150, 140, ground);
  grass(m);
  flowers(m.begin('Flowers'));
  path(m.begin('Path'));
  visitor(m.begin('Visitor'), [0.78, ground(0.78, 2.7) + 0.05, 2.7], 0.1);
  const grove = trees(m);
  return {
    name: 'Lantern Hill hut',
    mesh: m,
    copies: grove.copies,
    materials: {
      ...grove.materials,
      ...MEADOW_MATERIALS,
      ...INSIDE_MATERIALS,
      ...VISITOR_MATERIALS,
      meadow: { texture: meadow(6), span: [4, 4] },
      'field stone': { texture: masonry([0.42, 0.4, 0.36], 3), span: [2.52, 2.52], roughness: 0.9 },
      larch: { texture: wood([0.4, 0.25, 0.135], 15), span: [2.4, 0.6] },
      'weathered copper': { texture: copper(12), span: [2, 2], metallic: 1 },
      'blackened steel': { color: [0.03, 0.03, 0.03], roughness: 0.4 },
      concrete: { solid: SOLIDS.poured, roughness: 0.85 },
      'window glass': { color: [0.97, 0.985, 0.98], transmission: 1, roughness: 0, ior: 1.5 },
      'dark interior': { color: [0.05, 0.048, 0.045], roughness: 0.9 }
    },
    cameras: [
      { name: 'From the meadow', from: [-2.2, 1.62, -6.4], to: [1.75, 2.35, 9.1], focalMm: 33 },
      { name: 'Dome and slit', from: [-3.9, 1.7, -3.6], to: [2.3, 3.5, 9.75], focalMm: 27 },
      { name: 'Up the path', from: [0.1, 1, -1.6], to: [2.5, 2.7, 9.6], focalMm: 26 }
    ],
    lamps: [{ name: 'Door lamp', kind: 'point', at: [1.33, 2.9, 7.5], color: [1, 0.7, 0.42], candela: 60 }]
  };
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
  m.box('dark interior', [door.x0 - 0.12, 0.5, z0 + 0.02], [door.x1 + 0.12, door.y1 + 0.05, z0 + 0.04], 0.002);
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
