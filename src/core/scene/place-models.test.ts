import { describe, expect, it } from 'vitest';
import { glowing, makeScene, matte, quad } from '../../../tests/support/scenes';
import { type PlacedModel, placeMatrix, placeModels } from './place-models';
import { applyAffine } from '../math/affine';
import { countTriangles, partNames, type Scene, type SceneTexture } from './scene';

const model = makeScene([quad([0, 0, 0], [1, 0, 0], [1, 1, 0], [0, 1, 0], matte(0.5))]);
const texture: SceneTexture = { name: 'weave', width: 1, height: 1, pixels: new Uint8Array(4), encoded: true };
const use = { texture: 0, uvSet: 0, wrapS: 'repeat', wrapT: 'repeat', transform: [1, 0, 0, 0, 1, 0] } as const;

/** A square whose foot lies at 5, 1, 5 with a picture on it, and a glowing one beside it. */
function piece(): Scene {
  const made = makeScene([
    quad([4, 1, 5], [6, 1, 5], [6, 3, 5], [4, 3, 5], {
      ...matte(0.3),
      name: 'cloth',
      baseTexture: { ...use, transform: [...use.transform] }
    }),
    quad([4, 1, 5], [5, 1, 5], [5, 2, 5], [4, 2, 5], { ...glowing(10), name: 'bulb' })
  ]);
  return {
    ...made,
    textures: [texture],
    lights: [{ kind: 'point', name: '', path: 'a', position: [5, 3, 5], intensity: [7, 7, 7] }]
  };
}
const at = (position_m: [number, number, number], less: Partial<PlacedModel> = {}): PlacedModel => ({
  name: 'Lantern',
  model: 'lantern',
  position_m,
  turn_deg: 0,
  scale: 1,
  seen: 'whole',
  ...less
});
const models = new Map([['lantern', piece()]]);

describe('placed models', () => {
  it('stand with the middle of their foot where they are placed, turned about it and to scale', () => {
    const m = placeMatrix(at([10, 0, 0], { turn_deg: 90, scale: 2 }), piece().bounds);
    const placed = (p: [number, number, number]) => applyAffine(m, p).map((v) => Math.round(v * 1e6) / 1e6 + 0);
    expect(placed([5, 1, 5])).toEqual([10, 0, 0]);
    expect(placed([6, 1, 5])).toEqual([10, 0, -2]);
    expect(placed([5, 3, 5])).toEqual([10, 4, 0]);
  });
  it('are kept once however often they stand; what glows becomes part of the world', () => {
    const out = placeModels({ ...model, textures: [texture] }, [at([10, 0, 0]), at([20, 0, 0])], models);
    expect(out.objects.length).toBe(1);
    expect(out.instances.length).toBe(2);
    expect(countTriangles(out)).toBe(2 + 2 * 4);
    expect(out.geometry.triangleMaterials.length).toBe(2 + 2 * 2);
    expect(partNames(out)).toEqual(['Lantern', 'Lantern', '', 'Lantern', 'Lantern']);
    const cloth = out.materials.find((m) => m.name === 'cloth')!;
    expect(cloth.baseTexture!.texture).toBe(1);
    const used = new Set(out.geometry.triangleMaterials.subarray(2));
    expect([...used].map((m) => out.materials[m]!.name)).toEqual(['bulb']);
    expect(out.bounds).toEqual(model.bounds);
  });
  it('bring their lamps, which stay as bright whatever the size of the piece', () => {
    const { lights } = placeModels(model, [at([10, 0, 0], { scale: 3 })], models);
    expect(lights).toMatchObject([{ name: 'Lantern', position: [10, 6, 0], intensity: [7, 7, 7] }]);
  });
  it('may be unseen or left out, and are refused by name when they are not there', () => {
    const unseen = placeModels(model, [at([0, 0, 0], { seen: 'indirect' })], models);
    expect(unseen.materials.filter((m) => m.unseen === 'camera').map((m) => m.name)).toEqual(['cloth', 'bulb']);
    expect(placeModels(model, [at([0, 0, 0], { seen: 'out' })], models)).toBe(model);
    expect(() => placeModels(model, [at([0, 0, 0], { model: 'sofa' })], models)).toThrow(/"sofa" is not here/);
  });
});
