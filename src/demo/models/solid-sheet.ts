/**
 * Eight solid textures, each on a block with a turned knob, so that faces, edges and curves cut the same pattern;
 * blocks stand 0.2 m wide.
 */
import { MeshBuilder } from '../../drawing/mesh-builder';
import { SOLIDS } from '../../drawing/textures/solids';
import type { DrawnMaterial, DrawnModel } from '../../drawing/write-model';

const SHOWN: Record<string, DrawnMaterial> = {
  oak: { solid: SOLIDS.oak, roughness: 0.5 },
  walnut: { solid: SOLIDS.walnut, roughness: 0.5, coat: { weight: 1, roughness: 0.06 } },
  'veined stone': { solid: SOLIDS.veined, roughness: 0.18 },
  concrete: { solid: SOLIDS.poured, roughness: 0.85 },
  brick: { solid: SOLIDS.brick, roughness: 0.85 },
  terrazzo: { solid: SOLIDS.terrazzo, roughness: 0.25 },
  'woven cloth': { solid: SOLIDS.woven, roughness: 0.95 },
  plaster: { solid: SOLIDS.trowelled, roughness: 0.9 }
};

export function solidSheet(): DrawnModel {
  const m = new MeshBuilder(71);
  m.box('table', [-2, -0.05, -2], [2, -0.001, 2], 0.01);
  Object.keys(SHOWN).forEach((name, i) => {
    const x = ((i % 4) - 1.5) * 0.27;
    const z = (Math.floor(i / 4) - 0.5) * 0.3;
    m.box(name, [x - 0.1, 0, z - 0.1], [x + 0.1, 0.14, z + 0.1], 0.006);
    m.sphere(name, [x, 0.185, z], 0.055, 48, 96);
  });
  return {
    name: 'Solid sheet',
    mesh: m,
    materials: { ...SHOWN, table: { color: [0.42, 0.41, 0.4], roughness: 0.6 } },
    cameras: [{ name: 'Sheet', from: [0.1, 0.56, -1.0], to: [0, 0.07, -0.01], focalMm: 28 }],
    lamps: []
  };
}
