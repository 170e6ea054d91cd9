/**
 * A little scene to judge light by: a matte ball, a mirror ball and a card with a grey scale and six colours, so that
 * surroundings can be compared. 40 cm across, standing on y = 0, its front to +Z. Reflectances of the patches: our own
 * choice, spread over hue.
 */
import type { Vec3 } from '../math/vec3';
import { boundsOf, MATERIAL_DEFAULTS, NO_INSTANCES, type Scene, type SceneMaterial } from './scene';
import { plainGeometry } from './triangles';

const RINGS = 32;
const SECTORS = 64;
const GREYS = [0.04, 0.18, 0.45, 0.85];
const COLOURS: Vec3[] = [
  [0.45, 0.06, 0.05],
  [0.55, 0.3, 0.04],
  [0.6, 0.52, 0.06],
  [0.07, 0.28, 0.1],
  [0.05, 0.13, 0.42],
  [0.28, 0.08, 0.32]
];

export function ballAndCard(): Scene {
  const positions: number[] = [];
  const normals: number[] = [];
  const indices: number[] = [];
  const triangleMaterials: number[] = [];
  const materials: SceneMaterial[] = [];
  const material = (more: Partial<SceneMaterial>) => materials.push({ ...MATERIAL_DEFAULTS, ...more }) - 1;

  const ball = (centre: Vec3, radius: number, m: number) => {
    const first = positions.length / 3;
    for (let i = 0; i <= RINGS; i++) {
      for (let j = 0; j <= SECTORS; j++) {
        const [a, b] = [(Math.PI * i) / RINGS, (2 * Math.PI * j) / SECTORS];
        const n: Vec3 = [Math.sin(a) * Math.cos(b), Math.cos(a), -Math.sin(a) * Math.sin(b)];
        positions.push(centre[0] + radius * n[0], centre[1] + radius * n[1], centre[2] + radius * n[2]);
        normals.push(...n);
      }
    }
    for (let i = 0; i < RINGS; i++) {
      for (let j = 0; j < SECTORS; j++) {
        const p = first + i * (SECTORS + 1) + j;
        const q = p + SECTORS + 1;
        if (i > 0) face([p, q, p + 1], m);
        if (i < RINGS - 1) face([p + 1, q, q + 1], m);
      }
    }
  };
  const face = (corners: readonly number[], m: number) => {
    indices.push(...corners);
    triangleMaterials.push(m);
  };
  const quad = (corners: readonly Vec3[], normal: Vec3, m: number) => {
    const first = positions.length / 3;
    for (const p of corners) {
      positions.push(...p);
      normals.push(...normal);
    }
    face([first, first + 1, first + 2], m);
    face([first, first + 2, first + 3], m);
  };

  ball([-0.15, 0.07, 0.02], 0.07, material({ name: 'matte', baseColor: [0.45, 0.45, 0.45, 1], specular: 0 }));
  ball(
    [0.005, 0.07, 0.05],
    0.07,
    material({ name: 'mirror', baseColor: [0.92, 0.92, 0.92, 1], metallic: 1, roughness: 0 })
  );
  // the card leans back by a fifth
  const up: Vec3 = [0, 0.98, -0.199];
  const front: Vec3 = [0, 0.199, 0.98];
  const patch = (x: number, y: number, w: number, h: number, lift: number, m: number) => {
    const at = (dx: number, dy: number): Vec3 => [
      0.11 + x + dx * w,
      (y + dy * h) * up[1] + lift * front[1],
      -0.09 + (y + dy * h) * up[2] + lift * front[2]
    ];
    quad([at(0, 0), at(1, 0), at(1, 1), at(0, 1)], front, m);
  };
  patch(-0.02, 0, 0.2, 0.15, 0, material({ name: 'card', baseColor: [0.7, 0.7, 0.7, 1], twoSided: true }));
  GREYS.forEach((g, i) => {
    patch(
      -0.01 + i * 0.045,
      0.105,
      0.045,
      0.036,
      0.0005,
      material({ name: `grey ${g}`, baseColor: [g, g, g, 1], twoSided: true })
    );
  });
  COLOURS.forEach((c, i) => {
    patch(
      -0.01 + i * 0.03,
      0.06,
      0.03,
      0.036,
      0.0005,
      material({ name: `colour ${i + 1}`, baseColor: [...c, 1], twoSided: true })
    );
  });
  const geometry = plainGeometry({ positions, normals, indices, triangleMaterials });
  return {
    ...NO_INSTANCES,
    geometry,
    materials,
    textures: [],
    lights: [],
    cameras: [],
    bounds: boundsOf(geometry.positions)
  };
}
