/** The garden behind the windows of the reading room: lawn, shrubs along its edge, trees in October. */
import type { Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../../drawing/mesh-builder';
import { field } from '../../drawing/noise';
import { tree } from '../../drawing/pieces/plants';
import type { DrawnMaterial, DrawnModel } from '../../drawing/write-model';
import { planted } from './planted';

type Places = readonly (readonly [x: number, z: number, scale: number])[];

const slope = (x: number, z: number): number => {
  const rise = Math.max(0, Math.hypot(x, z - 6) - 14);
  const hills = rise * rise * 0.0008 * (0.55 + 0.9 * field(x * 0.018, z * 0.018, 3));
  return -0.35 + 0.35 * (field(x * 0.12, z * 0.12, 7) - 0.5) + hills * (z > 0 ? 1 : 0.6);
};

const MAPLES: Places = [
  [-5.5, 21, 1],
  [3.4, 26, 1.15],
  [11, 33, 1.2],
  [-14, 30, 1.3]
];
const BIRCHES: Places = [
  [0.6, 16.5, 1],
  [6.6, 19.5, 1.1],
  [-9.5, 17, 0.9]
];
const SHRUBS: Places = Array.from({ length: 14 }, (_, i) => [
  -8.4 + 1.3 * i,
  12.6 + 0.7 * Math.sin(i * 2.1),
  0.75 + 0.22 * Math.sin(i * 3.7)
]);
const PERENNIALS: Places = Array.from({ length: 16 }, (_, i) => [
  -3.6 + 0.5 * i,
  9.3 + 0.35 * Math.sin(i * 4.3),
  0.8 + 0.3 * Math.sin(i * 5.9)
]);

export const GARDEN_MATERIALS: Record<string, DrawnMaterial> = {
  gravel: { color: [0.4, 0.36, 0.3], roughness: 1 },
  bark: { color: [0.2, 0.18, 0.155], roughness: 0.95 }
};

export function garden(m: MeshBuilder): Pick<DrawnModel, 'materials'> & { copies: NonNullable<DrawnModel['copies']> } {
  m.begin('Outside').terrain('meadow', -60, 90, -50, 100, 130, 130, slope);
  m.terrain('gravel', -30, 30, 10.4, 11.6, 60, 4, (x, z) => slope(x, z) + 0.03);
  const plants = [
    { name: 'Maple', places: MAPLES, size: 8, form: FORMS.maple },
    { name: 'Birch', places: BIRCHES, size: 6.5, form: FORMS.birch },
    { name: 'Garden shrub', places: SHRUBS, size: 1.9, form: FORMS.shrub },
    { name: 'Perennial', places: PERENNIALS, size: 0.8, form: FORMS.perennial }
  ];
  const materials: Record<string, DrawnMaterial> = { ...GARDEN_MATERIALS };
  const copies = plants.map(({ name, places, size, form }, k) => {
    const standing = places.map(([x, z, scale], i) => ({
      at: [x, slope(x, z) - 0.05, z] as Vec3,
      turnDeg: (i * 137.5 + 40 * k) % 360,
      scale
    }));
    return planted(name, tree({ seed: 101 + k, height: size, far: true, ...form }), standing, materials);
  });
  return { copies, materials };
}

type Form = Omit<Parameters<typeof tree>[0], 'seed' | 'height' | 'far'>;
const FORMS: Record<'maple' | 'birch' | 'shrub' | 'perennial', Form> = {
  maple: {
    trunk: 0.16,
    clear: 0.2,
    spread: 0.36,
    leaf: 0.19,
    boughs: 22,
    forks: [8, 7, 14],
    color: [0.3, 0.16, 0.03],
    through: [0.55, 0.32, 0.05]
  },
  birch: {
    trunk: 0.06,
    clear: 0.28,
    spread: 0.24,
    leaf: 0.11,
    boughs: 22,
    forks: [8, 6, 12],
    color: [0.28, 0.22, 0.04],
    through: [0.5, 0.42, 0.08]
  },
  shrub: {
    trunk: 0.02,
    clear: 0.03,
    spread: 0.56,
    leaf: 0.06,
    boughs: 18,
    forks: [7, 5, 13],
    color: [0.06, 0.105, 0.035],
    through: [0.2, 0.33, 0.07]
  },
  perennial: {
    trunk: 0.006,
    clear: 0.02,
    spread: 0.45,
    leaf: 0.05,
    boughs: 14,
    forks: [5, 4, 8],
    color: [0.13, 0.15, 0.07],
    through: [0.3, 0.36, 0.12]
  }
};
