/**
 * Twelve materials on one turned vessel with a knob, in three rows on a grey table: what each scattering model should
 * look like. Each stands 90 mm tall; two stripes on the table show what is seen through the clear ones.
 */
import { MeshBuilder } from '../../drawing/mesh-builder';
import { wood } from '../../drawing/textures/surfaces';
import type { DrawnMaterial, DrawnModel } from '../../drawing/write-model';

type Profile = readonly (readonly [number, number])[];
const DRAWN: Profile = [
  [0, 0],
  [0.024, 0],
  [0.0285, 0.002],
  [0.0285, 0.006],
  [0.022, 0.011],
  [0.023, 0.0165],
  [0.033, 0.03],
  [0.0375, 0.044],
  [0.036, 0.058],
  [0.029, 0.069],
  [0.021, 0.0735],
  [0.0175, 0.0755],
  [0.0195, 0.079],
  [0.0185, 0.084],
  [0.013, 0.0882],
  [0.006, 0.09],
  [0, 0.0902]
];
/** A smooth curve through the points of a profile. Catmull and Rom 1974. */
function smooth(points: Profile, steps: number): Profile {
  const at = (i: number) => points[Math.min(points.length - 1, Math.max(0, i))]!;
  const out: [number, number][] = [];
  for (let i = 0; i + 1 < points.length; i++) {
    for (let k = 0; k < steps; k++) {
      const t = k / steps;
      const value = (c: 0 | 1) =>
        0.5 *
        (2 * at(i)[c] +
          (at(i + 1)[c] - at(i - 1)[c]) * t +
          (2 * at(i - 1)[c] - 5 * at(i)[c] + 4 * at(i + 1)[c] - at(i + 2)[c]) * t * t +
          (3 * at(i)[c] - at(i - 1)[c] - 3 * at(i + 1)[c] + at(i + 2)[c]) * t ** 3);
      out.push([Math.max(0, value(0)), Math.max(0, value(1))]);
    }
  }
  return [...out, [...points.at(-1)!]];
}

export const MATERIAL_SHEET: Record<string, DrawnMaterial> = {
  'polished brass': { color: [0.88, 0.64, 0.31], metallic: 1, roughness: 0.08 },
  'brushed steel': { color: [0.58, 0.57, 0.55], metallic: 1, roughness: 0.28, brushed: { strength: 0.85, turnDeg: 0 } },
  'annealed titanium': { color: [0.54, 0.5, 0.45], metallic: 1, roughness: 0.2, film: { weight: 1, ior: 2.1, nm: 95 } },
  'lacquered walnut': { texture: wood([0.2, 0.1, 0.05], 61), span: [0.12, 0.12], coat: { weight: 1, roughness: 0.04 } },
  'clear glass': {
    transmission: 1,
    roughness: 0,
    ior: 1.5,
    volume: { thickness: 0.05, color: [0.92, 0.97, 0.95], distance: 0.2 },
    oneSided: true
  },
  'frosted glass': {
    transmission: 1,
    roughness: 0.35,
    ior: 1.5,
    volume: { thickness: 0.05, color: [0.95, 0.98, 0.97], distance: 0.2 },
    oneSided: true
  },
  'amber glass': {
    transmission: 1,
    roughness: 0,
    ior: 1.52,
    volume: { thickness: 0.05, color: [0.85, 0.32, 0.04], distance: 0.05 },
    oneSided: true
  },
  'heavy crystal': {
    transmission: 1,
    roughness: 0,
    ior: 1.7,
    dispersion: 2,
    volume: { thickness: 0.05, color: [1, 1, 1], distance: 1 },
    oneSided: true
  },
  'red velvet': { color: [0.16, 0.012, 0.018], roughness: 0.95, sheen: { color: [0.85, 0.25, 0.28], roughness: 0.45 } },
  'glazed stoneware': { color: [0.05, 0.16, 0.19], roughness: 0.75, coat: { weight: 1, roughness: 0.12 } },
  'milky shade': { color: [0.86, 0.84, 0.8], roughness: 0.45, through: { weight: 0.65, color: [0.95, 0.86, 0.72] } },
  'matte plaster': { color: [0.75, 0.73, 0.7], roughness: 1, specularColor: [0.4, 0.4, 0.4] }
};

export function materialSheet(): DrawnModel {
  const m = new MeshBuilder(61);
  const profile = smooth(DRAWN, 8);
  m.box('table', [-0.6, -0.03, -0.5], [0.6, -0.001, 0.6], 0.004);
  Object.keys(MATERIAL_SHEET).forEach((name, i) => {
    const x = ((i % 4) - 1.5) * 0.105;
    const z = (Math.floor(i / 4) - 1) * 0.12;
    m.turned(name, [x, 0, z], profile, 160);
    m.box('stripe', [x - 0.045, -0.0009, z + 0.042], [x + 0.045, -0.0001, z + 0.048], 0.0002);
  });
  return {
    name: 'Material sheet',
    mesh: m,
    materials: {
      ...MATERIAL_SHEET,
      table: { color: [0.42, 0.41, 0.4], roughness: 0.6 },
      stripe: { color: [0.03, 0.03, 0.035], roughness: 0.8 }
    },
    cameras: [{ name: 'Sheet', from: [0, 0.36, -0.62], to: [0, 0.03, -0.01], focalMm: 38 }],
    lamps: []
  };
}
