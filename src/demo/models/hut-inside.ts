/** What is seen through the window of the hut: shelves, a desk under two lamps, a telescope. In steps of the hut's grid. */
import type { Vec3 } from '../../core/math/vec3';
import type { MeshBuilder } from '../../drawing/mesh-builder';
import type { DrawnMaterial } from '../../drawing/write-model';

const SPINES: readonly Vec3[] = [
  [0.32, 0.07, 0.05],
  [0.07, 0.13, 0.21],
  [0.5, 0.41, 0.25],
  [0.12, 0.18, 0.1],
  [0.58, 0.54, 0.47]
];

export const INSIDE_MATERIALS: Record<string, DrawnMaterial> = {
  'inside wall': { color: [0.66, 0.6, 0.52], roughness: 0.9 },
  'lamp strip': { color: [0.9, 0.88, 0.84], glow: [14000, 9500, 5200] },
  'desk lamps': { color: [0.9, 0.88, 0.84], glow: [16000, 10500, 5600] },
  'telescope brass': { color: [0.86, 0.62, 0.3], metallic: 1, roughness: 0.22 },
  ...Object.fromEntries(SPINES.map((color, i) => [`spine ${i + 1}`, { color, roughness: 0.75 }]))
};

export function inside(m: MeshBuilder): void {
  const { random } = m;
  // shelves along the back wall
  for (const y of [0.95, 1.28, 1.61, 1.94, 2.27]) {
    m.box('larch', [-1.24, y, 8.98], [0.62, y + 0.02, 9.18], 0.003);
    for (let x = -1.2; x < 0.56; ) {
      const wide = 0.018 + 0.022 * random();
      if (random() < 0.12) {
        x += 0.1 * random() + 0.05;
        continue;
      }
      const tall = 0.16 + 0.09 * random();
      m.box(
        `spine ${1 + Math.floor(random() * SPINES.length)}`,
        [x, y + 0.02, 9],
        [x + wide - 0.001, y + 0.02 + tall, 9.14],
        0.002
      );
      x += wide;
    }
  }
  for (const x of [-1.24, -0.3, 0.62]) m.box('larch', [x - 0.012, 0.6, 8.98], [x + 0.012, 2.3, 9.18], 0.003);
  // desk at the window, with papers and a stack of books
  m.box('larch', [-1.05, 1.12, 6.35], [0.3, 1.15, 6.95], 0.004);
  for (const x of [-1, 0.25]) m.box('larch', [x - 0.02, 0.6, 6.4], [x + 0.02, 1.12, 6.9], 0.004);
  for (const [i, k] of [0, 1, 2].entries())
    m.box(`spine ${k + 1}`, [-0.95, 1.15 + 0.03 * i, 6.5], [-0.78, 1.178 + 0.03 * i, 6.72], 0.003, 0.1 * i);
  // two lamps on their cords
  for (const x of [-0.72, -0.05]) {
    m.rod('blackened steel', [x, 1.98, 6.75], [x, 2.55, 6.75], 0.004, 0.004, 8);
    m.sphere('desk lamps', [x, 1.9, 6.75], 0.075, 16, 32);
  }
  // a telescope on three legs
  const eye: Vec3 = [0.05, 1.32, 7.9];
  const front: Vec3 = [-0.42, 1.72, 7.55];
  m.rod('telescope brass', eye, front, 0.035, 0.045, 28);
  const middle: Vec3 = [-0.18, 1.48, 7.72];
  for (const a of [0.4, 2.5, 4.6])
    m.rod('larch', [middle[0] + 0.3 * Math.cos(a), 0.6, middle[2] + 0.3 * Math.sin(a)], middle, 0.012, 0.016, 12);
}
