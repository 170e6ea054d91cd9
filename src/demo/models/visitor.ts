/** Someone in a long coat, for scale: turned from sections as a model maker would, without a face. 1.74 m tall. */
import type { Vec3 } from '../../core/math/vec3';
import type { MeshBuilder } from '../../drawing/mesh-builder';
import type { DrawnMaterial } from '../../drawing/write-model';

export const VISITOR_MATERIALS: Record<string, DrawnMaterial> = {
  'loden coat': { color: [0.17, 0.055, 0.035], roughness: 0.95, sheen: { color: [0.2, 0.09, 0.06], roughness: 0.6 } },
  trousers: { color: [0.045, 0.05, 0.062], roughness: 0.95 },
  boots: { color: [0.05, 0.032, 0.022], roughness: 0.55 },
  skin: { color: [0.52, 0.33, 0.24], roughness: 0.6 },
  'knitted cap': { color: [0.1, 0.12, 0.15], roughness: 1 }
};

/** Half widths across and in depth, height, and how far forward; from below. */
type Section = readonly [across: number, deep: number, height: number, forward: number];
const COAT: readonly Section[] = [
  [0.225, 0.18, 0.4, 0.01],
  [0.2, 0.155, 0.68, 0],
  [0.175, 0.125, 0.98, 0],
  [0.172, 0.12, 1.1, 0.005],
  [0.195, 0.13, 1.28, 0.005],
  [0.208, 0.12, 1.38, -0.005],
  [0.17, 0.1, 1.45, -0.01],
  [0.075, 0.075, 1.5, 0],
  [0.07, 0.07, 1.535, 0.008]
];
const HEAD: readonly Section[] = [
  [0.05, 0.05, 1.5, 0.01],
  [0.055, 0.065, 1.53, 0.02],
  [0.072, 0.09, 1.57, 0.02],
  [0.078, 0.098, 1.63, 0.012],
  [0.075, 0.094, 1.68, 0.004]
];
const CAP: readonly Section[] = [
  [0.083, 0.102, 1.645, 0.004],
  [0.086, 0.106, 1.665, 0.002],
  [0.08, 0.098, 1.7, -0.004],
  [0.055, 0.07, 1.73, -0.012],
  [0.004, 0.004, 1.742, -0.016]
];

/** `turn` in radians about the upright; at 0 the visitor looks along +z. */
export function visitor(m: MeshBuilder, at: Vec3, turn: number): void {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const place = (p: Vec3): Vec3 => [at[0] + p[0] * c + p[2] * s, at[1] + p[1], at[2] - p[0] * s + p[2] * c];
  const body = (material: string, sections: readonly Section[], waves = 0) => {
    m.sheet(material, 40, 6 * (sections.length - 1), (u, v) => {
      const k = Math.min(sections.length - 1, Math.max(0, v * (sections.length - 1)));
      const i = Math.min(sections.length - 2, Math.floor(k));
      const t = k - i;
      const [across, deep, height, forward] = [0, 1, 2, 3].map((n) => spline(sections, i, n, t)) as unknown as Section;
      const a = -2 * Math.PI * u;
      // the hem falls in folds
      const fold = 1 + waves * Math.max(0, 1 - v * 2) * Math.sin(a * 7);
      return place([across * fold * Math.cos(a), height, deep * fold * Math.sin(a) + forward]);
    });
  };
  body('loden coat', COAT, 0.06);
  body('skin', HEAD);
  body('knitted cap', CAP);
  for (const side of [-1, 1]) {
    const step = side * 0.07;
    m.rod('trousers', place([side * 0.085, 0.1, step]), place([side * 0.08, 0.75, 0]), 0.055, 0.085, 20);
    const boot = place([side * 0.09, 0.06, step + 0.05]);
    m.turnedBox('boots', boot, [0.045, 0.06, 0.13], [c, 0, -s], [0, 1, 0], 0.03);
    // arms that hang, hands in the pockets
    const [shoulder, elbow, pocket]: [Vec3, Vec3, Vec3] = [
      [side * 0.19, 1.39, 0],
      [side * 0.265, 1.12, -0.06],
      [side * 0.19, 0.93, 0.08]
    ];
    m.sphere('loden coat', place(shoulder), 0.062, 12, 24);
    m.rod('loden coat', place(shoulder), place(elbow), 0.06, 0.05, 20);
    m.sphere('loden coat', place(elbow), 0.05, 12, 24);
    m.rod('loden coat', place(elbow), place(pocket), 0.05, 0.042, 20);
  }
}

/** Catmull and Rom 1974, of one number of the sections. */
function spline(sections: readonly Section[], i: number, n: number, t: number): number {
  const at = (k: number) => sections[Math.min(sections.length - 1, Math.max(0, k))]![n]!;
  const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
  return 0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t * t + (3 * b - a - 3 * c + d) * t ** 3);
}
