/**
 * A pool with ripples in a terrace of polished dark stone, two columns and a ball: what open water and a mirror-like
 * floor must look like. 8 x 6 m.
 */
import { MeshBuilder } from '../../drawing/mesh-builder';
import { SOLIDS } from '../../drawing/textures/solids';
import type { DrawnModel } from '../../drawing/write-model';

export function waterSheet(): DrawnModel {
  const m = new MeshBuilder(81);
  // the terrace round the pool, whose walls go down 1.2 m
  for (const [x0, z0, x1, z1] of [
    [-4, -3, 4, -1.6],
    [-4, 1.4, 4, 6],
    [-4, -1.6, -2.6, 1.4],
    [2.2, -1.6, 4, 1.4]
  ] as const)
    m.box('polished stone', [x0, -1.3, z0], [x1, 0, z1], 0.004);
  m.box('pool tiles', [-2.8, -1.4, -1.8], [2.4, -1.2, 1.6], 0);
  m.quad('water', [-2.6, -0.05, -1.6], [-2.6, -0.05, 1.4], [2.2, -0.05, 1.4], [2.2, -0.05, -1.6]);
  for (const x of [-2, 1.6]) m.box('limewash', [x - 0.18, 0, 2.1], [x + 0.18, 2.6, 2.46], 0.02);
  m.box('limewash', [-4, 0, 4.4], [4, 3, 4.6], 0.01);
  m.sphere('glazed ball', [0.1, 0.42, 2.2], 0.42, 64, 128);
  return {
    name: 'Water sheet',
    mesh: m,
    materials: {
      'polished stone': {
        solid: {
          ...SOLIDS.veined,
          size_m: 0.9,
          colors: [
            [0.02, 0.022, 0.025],
            [0.045, 0.045, 0.05],
            [0.2, 0.19, 0.17]
          ]
        },
        roughness: 0.03
      },
      'pool tiles': { color: [0.5, 0.62, 0.6], roughness: 0.4 },
      water: {
        solid: SOLIDS.ripples,
        transmission: 1,
        roughness: 0,
        ior: 1.333,
        volume: { thickness: 1, color: [0.55, 0.82, 0.86], distance: 2 }
      },
      limewash: { solid: SOLIDS.trowelled, roughness: 0.95 },
      'glazed ball': { color: [0.5, 0.1, 0.05], roughness: 0.7, coat: { weight: 1, roughness: 0.03 } }
    },
    cameras: [{ name: 'Sheet', from: [-0.9, 1.45, -4.2], to: [-0.1, 0.55, 2], focalMm: 28 }],
    lamps: []
  };
}
